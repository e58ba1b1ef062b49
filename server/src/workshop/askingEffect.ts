import type { AnswerOf } from '@tolvek/contract';
import { levelsAsking, momentArriving, speaksToAskers } from '@tolvek/core/access';
import { fieldsAsked } from '@tolvek/core/form';
import { STRANGER, type Viewer } from '@tolvek/core/people';
import { partsOf } from '@tolvek/core/register';
import { doorsOf } from '../door/queries.ts';
import { currentRelease, formsOf } from '../form/queries.ts';
import { staffIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import { firstStage, type RegisterRow } from '../register/queries.ts';
import { factsFor } from '../request/facts.ts';
import { concernedBy } from './planEffect.ts';

type Asking = AnswerOf<'accessPlanEffect'>['asking'];

/** Some of those whom it concerns, by name. */
const NAMED = 6;

/**
 * What a plan would change while somebody asks, by the forms in force: for how many of the staff who come by a door for
 * them, and for whoever comes from outside, a question is asked, found filled in, or not asked, and was not.
 */
export function askingChanges(db: Reader, before: RegisterRow, after: RegisterRow): Asking {
  if (!speaksToAskers(before.access) && !speaksToAskers(after.access)) return [];
  const now = nowIn(db);
  const staff = staffIn(db, 'all');
  const concerned = new Map(
    concernedBy(
      db,
      staff.map(({ id }) => id),
    ).map(({ personId, groups, kind = 'staff', meets = [] }) => [
      personId,
      { personId, groups, kind, meets, rights: [] } satisfies Viewer,
    ]),
  );
  const sums = new Map<string, Asking[number]>();
  for (const form of formsOf(db, before.id)) {
    const release = currentRelease(db, form);
    if (!release) continue;
    const { design } = release;
    const kinds = doorsOf(db, form.id).map(({ kind }) => kind);
    const asked = fieldsAsked(design.parts);
    const fields = design.fields.filter(({ key }) => asked.has(key));
    const at = momentArriving(
      before.fields,
      { form: form.key, stage: firstStage(before).key, day: todayAt(db, now) },
      () => factsFor(db, { door: { kind: 'staff' }, design, requester: null, now }),
    );
    const add = (viewer: Viewer, name: string | null): void => {
      const [was, is] = [before, after].map(({ access }) => levelsAsking(fields, access, viewer, at));
      for (const { key: field, label } of partsOf(fields)) {
        const [had, has] = [was?.get(field) ?? 'write', is?.get(field) ?? 'write'] as const;
        if (had === has) continue;
        const sum = `${field} ${had} ${has}`;
        const known = sums.get(sum) ?? { field, label, before: had, after: has, people: 0, names: [], outside: false };
        const names = name !== null && known.names.length < NAMED ? [...known.names, name] : known.names;
        sums.set(sum, {
          ...known,
          ...(name === null ? { outside: true } : { people: known.people + 1, names }),
        });
      }
    };
    if (kinds.includes('staff'))
      for (const { id, name } of staff) {
        const viewer = concerned.get(id);
        if (viewer) add(viewer, name);
      }
    if (kinds.includes('outside')) add(STRANGER, null);
  }
  // Where all lines are not asked, their columns are not said besides.
  return [...sums.values()].filter(
    (each) =>
      ![...sums.values()].some(
        (other) =>
          each.field.startsWith(`${other.field}.`) && other.before === each.before && other.after === each.after,
      ),
  );
}
