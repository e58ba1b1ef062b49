import type { AnswerOf } from '@tolvek/contract';
import { compareDesigns, type DesignChange, type FormDesign } from '@tolvek/core/form';
import { inRegister, may, type Viewer } from '@tolvek/core/people';
import { sum } from 'drizzle-orm';
import { draftHistoryOf } from '../design/queries.ts';
import { allForms, currentRelease, designOfForm, type FormRow, formNamed } from '../form/queries.ts';
import { namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { inTurns } from '../platform/turns.ts';
import { registerById } from '../register/queries.ts';
import { tallies } from '../request/tables.ts';
import { countOfFindings } from './findings.ts';

/** What was compared last with each draft. */
const compared = new WeakMap<
  FormDesign,
  { readonly against: FormDesign | null; readonly changes: readonly DesignChange[] }
>();

export function changesSince(db: Reader, form: FormRow, draft: FormDesign): readonly DesignChange[] {
  const against = currentRelease(db, form)?.design ?? null;
  const known = compared.get(draft);
  if (known?.against === against) return known.changes;
  const changes = compareDesigns(against, draft);
  compared.set(draft, { against, changes });
  return changes;
}

/** All forms with their state, and whether somebody may change each. */
export async function listForms(db: Reader, viewer: Viewer): Promise<AnswerOf<'forms'>['forms']> {
  const counts = new Map(
    db
      .select({ formId: tallies.formId, n: sum(tallies.n).mapWith(Number) })
      .from(tallies)
      .groupBy(tallies.formId)
      .all()
      .map((row) => [row.formId, row.n]),
  );
  const all = allForms(db);
  const listed: AnswerOf<'forms'>['forms'] = [];
  for await (const form of inTurns(all)) {
    const register = registerById(db, form.registerId);
    listed.push({
      key: form.key,
      title: form.draft.title,
      topic: form.draft.topic ?? '',
      register: register.name,
      registerKey: register.key,
      holds: register.holds,
      stopped: form.stoppedAt !== null,
      release: form.release,
      changed: changesSince(db, form, form.draft).length > 0,
      findings: countOfFindings(db, form),
      requests: counts.get(form.id) ?? 0,
      mayChange: may(inRegister(viewer, register.id), 'configure'),
    });
  }
  return listed;
}

/** What the draft of a form was, the newest first; each against the state before it. */
export async function historyOfDraft(db: Reader, key: string): Promise<AnswerOf<'draftHistory'>['states']> {
  const form = formNamed(db, key);
  const states = await draftHistoryOf(db, { compare: compareDesigns }, designOfForm(form));
  const names = namesOf(
    db,
    states.map((state) => state.by),
  );
  return states.map(({ id, by, at, content, changes }) => ({
    ...{ id, by: names.get(by) ?? '', at: iso(at), design: content, changes: [...changes] },
  }));
}
