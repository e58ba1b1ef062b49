import type { AnswerOf } from '@tolvek/contract';
import type { ValueChange } from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import { namesIn } from '@tolvek/core/expression';
import { fieldsBy, registerAfter } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { and, eq, sum } from 'drizzle-orm';
import { currentRelease, type FormRow, formByKey, formNamed, releaseById, releaseInForce } from '../form/queries.ts';
import { viewerOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { addJob, type Doing } from '../platform/longJobs.ts';
import { inGroups, inTurns } from '../platform/turns.ts';
import { by, type Work } from '../platform/work.ts';
import { contentOf, type RegisterRow, registerById } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { changeRequest } from '../request/change.ts';
import { changesBetween } from '../request/changes.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { factsOfRequest, pickedBy } from '../request/facts.ts';
import { fieldsOf } from '../request/fields.ts';
import { openRequest } from '../request/open.ts';
import { requestById, type ShownRow } from '../request/queries.ts';
import { computedBy } from '../request/settle.ts';
import { requests, tallies } from '../request/tables.ts';

/** Requests that are listed one by one; all of them are counted. */
const LISTED = 20;

const isMade = (field: Field): boolean => field.source === 'computed' || field.source === 'carried';

/** The fields that are made otherwise in one list than in another. */
const madeOtherwise = (before: readonly Field[], after: readonly Field[]): readonly Field[] =>
  after.filter(
    (field) =>
      isMade(field) &&
      !isSame(
        before.find((each) => each.key === field.key),
        field,
      ),
  );

const formula = (field: Field): string => (field.source === 'computed' ? field.formula : '');

/**
 * What the draft of a form would compute otherwise of its requests that are there. What a viewer may
 * not have looked through is not looked through.
 */
export async function recomputation(
  { db, clock }: House,
  viewer: Viewer,
  key: string,
): Promise<AnswerOf<'recomputation'>> {
  const form = formNamed(db, key);
  const register = registerById(db, form.registerId);
  const changed = madeOtherwise(currentRelease(db, form)?.design.fields ?? form.draft.fields, form.draft.fields);
  const nothing = { fields: [], looked: 0, changed: 0, some: false, requests: [] };
  if (changed.length === 0) return nothing;
  const fields = changed.map((field) => field.label);
  const names = changed.flatMap((field) => [field.key, ...namesIn(formula(field))]);
  const asked = askableOf(db, viewer, register, names);
  if (asked.unknown.length > 0) return { ...nothing, fields, some: true };
  const after = fieldsBy(registerAfter(contentOf(register), form.draft).fields, form.draft);
  const picked = pickedBy(db, register.fields);
  const found: AnswerOf<'recomputation'>['requests'] = [];
  const counted = { looked: 0, changed: 0 };
  for await (const request of inTurns(eachRequest(db, and(ofForm(form), asked.where)))) {
    counted.looked += 1;
    const changes = madeAnew(db, register, request, after, clock.now(), picked);
    if (changes.length === 0) continue;
    const open = openRequest(db, request, viewer, 'counting', { register });
    const seen = changes.filter((change) => open.readable.has(change.field));
    if (seen.length === 0) continue;
    counted.changed += 1;
    if (found.length < LISTED)
      found.push({ number: request.number, subject: open.subject, changes: open.changes(seen) });
  }
  return { fields, ...counted, some: !asked.isAll, requests: found };
}

const ofForm = (form: FormRow) => and(countedIn(form.registerId, 'all'), eq(requests.formId, form.id));

/**
 * What changes of a request when its fields are made as in another list; what would change by itself
 * besides, as a new day would have it, is left to the day.
 */
function madeAnew(
  db: Reader,
  register: RegisterRow,
  request: ShownRow,
  after: readonly Field[],
  now: number,
  picked: ReturnType<typeof pickedBy>,
): readonly ValueChange[] {
  const before = fieldsOf(db, register, request);
  if (before === after) return [];
  const facts = factsOfRequest(db, request, register, now, { picked });
  const computed = (fields: readonly Field[]) => computedBy(fields)(request.values, new Set(), facts).values;
  const here = computed(after);
  const otherwise = new Set(changesBetween(after, computed(before), here).map(({ field }) => field));
  return changesBetween(after, request.values, here).filter(({ field }) => otherwise.has(field));
}

/** Has the requests of a form computed anew by its release in force, as a job. Returns its id. */
export function recomputeLater({ tx, now }: Work, form: FormRow, viewer: Viewer): string {
  const of = tx
    .select({ n: sum(tallies.n).mapWith(Number) })
    .from(tallies)
    .where(eq(tallies.formId, form.id))
    .get();
  // That release and no later one: which of them reaches what is there is said with each.
  const about = { form: form.key, release: releaseInForce(tx, form.id)?.id ?? '' };
  return addJob(tx, { kind: 'recompute', about, by: viewer.personId, of: of?.n ?? 0, now });
}

/** What computing anew has come to: how many requests changed, of what whoever began it may read. */
export interface Recomputed {
  readonly changed: number;
}

/**
 * Computes the requests of a form anew by a release, a few at a time. Those that are computed by it
 * already are passed over.
 */
export async function recomputeAll(house: House, doing: Doing<{ form: string; release: string }>): Promise<void> {
  const { db } = house;
  const form = formByKey(db, doing.about.form);
  const viewer = viewerOf(db, doing.by);
  if (!form || !viewer) return;
  const { release } = releaseById(db, doing.about.release);
  const register = registerById(db, form.registerId);
  const after = fieldsBy(register.fields, release.design);
  const picked = pickedBy(db, register.fields);
  let total = (doing.before as Recomputed | null)?.changed ?? 0;
  for await (const group of inGroups(eachRequest(db, ofForm(form)))) {
    let changed = 0;
    await doing.step(group.length, (work) => {
      changed = 0;
      for (const { id } of group) {
        const request = requestById(work.tx, id);
        if (!request || (request.computedBy ?? request.releaseId) === release.id) continue;
        const changes = madeAnew(work.tx, register, request, after, work.now, picked);
        const change = { why: 'recomputed', release: release.number, by: release.id, changes } as const;
        changeRequest(by(work, viewer.personId), request, { kind: 'values', ...change });
        // Counted is what this viewer may read: the rest is computed along with it.
        const { readable } = openRequest(work.tx, request, viewer, 'counting', { register });
        if (changes.some(({ field }) => readable.has(field))) changed += 1;
      }
      return { changed: total + changed } satisfies Recomputed;
    });
    total += changed;
  }
}
