import type { AnswerOf } from '@tolvek/contract';
import type { ValueChange } from '@tolvek/core/access';
import type { FormDesign, FormRule } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { refused as refusedAs } from '@tolvek/words';
import { and, asc, desc, eq, gt, isNull } from 'drizzle-orm';
import { type FormRow, formByKey } from '../form/queries.ts';
import { viewerOf } from '../people/queries.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Database, Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { addJob, afterAWhile, type Doing, isEnded } from '../platform/longJobs.ts';
import { newId } from '../platform/newId.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { inGroups } from '../platform/turns.ts';
import { by, type Work, write } from '../platform/work.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { registers } from '../register/tables.ts';
import { changeRequest } from '../request/change.ts';
import { nameOf } from '../request/names.ts';
import { openRequest } from '../request/open.ts';
import { requestById } from '../request/queries.ts';
import { ruleRunChanges, ruleRuns } from '../request/tables.ts';
import type { Found } from './findings.ts';

import { type Input, overBy, type Plan, planOf, type Step, stepOf } from './ruleOver.ts';

/** Requests that are listed one by one; all of them are counted. */
const LISTED = 50;

/**
 * What a rule of the draft would do to the requests that are there, or, with what stood for the dry
 * run that was shown, does just that. Each request is looked at by itself, a few at a time: one
 * that the rule or a limit of a field refuses is left as it is, and told.
 *
 * @throws Problem 422 for a rule with errors, 409 when anything has changed since the dry run.
 */
export async function overExisting(
  house: House,
  viewer: Viewer,
  input: Input,
  found: Found,
): Promise<AnswerOf<'overExisting'>> {
  const plan = await planOf(house, viewer, input, found);
  if (input.shown === null) return answerOf(house.db, viewer, plan, null, plan.steps);
  if (input.shown !== plan.shown) throw new Problem(409, 'changed-meanwhile', refusedAs('changedSinceDryRun'));
  const refused = plan.steps.filter((step) => step.problems.length > 0);
  const todo = plan.steps.flatMap(({ id, version, changes }) => (changes.length > 0 ? [{ id, version }] : []));
  if (todo.length === 0) return answerOf(house.db, viewer, plan, null, refused);
  const { form, rule } = plan;
  const about: About = { run: newId(), form: form.key, rule, parts: form.draft.parts, todo };
  const job = write(house, ({ tx, now }) =>
    addJob(tx, { kind: 'rule', about, by: viewer.personId, of: todo.length, now }),
  );
  house.wakeJobs();
  const ended = await afterAWhile(house.db, viewer.personId, job);
  const changed = changedBy(house.db, about.run);
  const done = plan.steps.filter(({ id }) => changed.has(id));
  const answer = answerOf(house.db, viewer, plan, done.length > 0 ? about.run : null, [...done, ...refused]);
  return isEnded(ended) ? answer : { ...answer, applied: true, job };
}

/** What a rule is run by, as long work: the rule as it was shown, and the requests as they were then. */
interface About {
  readonly run: string;
  readonly form: string;
  readonly rule: FormRule;
  readonly parts: FormDesign['parts'];
  readonly todo: readonly { readonly id: string; readonly version: number }[];
}

/** The requests that a run has changed so far. */
const changedBy = (db: Reader, run: string): ReadonlySet<string> =>
  new Set(
    db
      .select({ id: ruleRunChanges.requestId })
      .from(ruleRunChanges)
      .where(eq(ruleRunChanges.runId, run))
      .all()
      .map(({ id }) => id),
  );

/**
 * Runs a rule over the requests of a dry run, a few at a time. Those that somebody changed since are left as
 * they are, and so are those that it has changed already, after a restart.
 */
export async function runRule(house: House, doing: Doing<About>): Promise<void> {
  const { db } = house;
  const { run, rule, parts, todo } = doing.about;
  const form = formByKey(db, doing.about.form);
  const viewer = viewerOf(db, doing.by);
  if (!form || !viewer) return;
  const over = overBy(db, viewer, { rule, parts }, registerById(db, form.registerId));
  let total = (doing.before as Ran | null)?.changed ?? 0;
  for await (const group of inGroups(todo)) {
    let here = 0;
    await doing.step(group.length, (work) => {
      const { tx, now } = work;
      here = 0;
      const ran = { id: run, formId: form.id, rule: rule.id, name: rule.name, by: viewer.personId, at: now };
      tx.insert(ruleRuns).values(ran).onConflictDoNothing().run();
      rememberRan(tx, over.register, form, rule);
      for (const { id, version } of group) {
        const request = requestById(tx, id);
        const step = request?.version === version ? stepOf(tx, over, request, now) : null;
        if (!request || !step || step.changes.length === 0) continue;
        const change = { kind: 'values', why: 'rule', rule: rule.name, changes: step.changes } as const;
        changeRequest(by(work, viewer.personId), request, change);
        tx.insert(ruleRunChanges).values({ runId: run, requestId: id, changes: step.changes }).run();
        here += 1;
      }
      return { changed: total + here } satisfies Ran;
    });
    total += here;
  }
}

/** How many requests a run has changed so far. */
interface Ran {
  readonly changed: number;
}

/** From now on the fields of all these requests are made by this rule as well. */
function rememberRan(tx: Transaction, { id }: RegisterRow, form: FormRow, rule: FormRule): void {
  const { ran } = registerById(tx, id);
  const one = { form: form.id, rule: { ...rule, says: '' } };
  if (ran.some((each) => canonicalJson(each) === canonicalJson(one))) return;
  tx.update(registers)
    .set({ ran: [...ran, one] })
    .where(eq(registers.id, id))
    .run();
}

function answerOf(
  db: Database,
  viewer: Viewer,
  { form, rule, register, looked, shown }: Plan,
  run: string | null,
  steps: readonly Step[],
): AnswerOf<'overExisting'> {
  const names = nameOf(db);
  return {
    looked,
    changed: steps.filter((step) => step.changes.length > 0).length,
    refused: steps.filter((step) => step.problems.length > 0).length,
    applied: run !== null,
    job: null,
    shown,
    last: lastRun(db, form.id, rule.id),
    requests: steps.slice(0, LISTED).flatMap((step) => {
      const request = requestById(db, step.id);
      if (!request) return [];
      const open = openRequest(db, request, viewer, 'list', { register, names });
      return [
        {
          number: request.number,
          subject: open.subject,
          refused: step.problems[0]?.message ?? null,
          changes: open.changes(step.changes),
        },
      ];
    }),
  };
}

/** The last run of a rule that can be taken back; null when there is none. */
function lastRun(db: Reader, formId: string, rule: string): AnswerOf<'overExisting'>['last'] {
  const run = db
    .select()
    .from(ruleRuns)
    .where(and(eq(ruleRuns.formId, formId), eq(ruleRuns.rule, rule), isNull(ruleRuns.takenBackAt)))
    .orderBy(desc(ruleRuns.at))
    .limit(1)
    .get();
  if (!run) return null;
  const held = db.select({ id: ruleRunChanges.requestId }).from(ruleRunChanges).where(eq(ruleRunChanges.runId, run.id));
  return { run: run.id, at: new Date(run.at).toISOString(), changed: held.all().length };
}

/**
 * Takes back what a run of a rule changed, as long work: each field that still holds what the rule put there
 * gets back what it held before. What was changed since stays, and is counted.
 *
 * @throws Problem 404 for a run that there is not, 409 when it was taken back before.
 */
export async function takeRunBack(
  house: House,
  viewer: Viewer,
  input: { readonly form: string; readonly run: string },
): Promise<AnswerOf<'takeRunBack'>> {
  const job = write(house, ({ tx, now }) => {
    const { run } = runOf(tx, input);
    if (run.takenBackAt !== null) throw new Problem(409, 'taken-back', refusedAs('undoneAlready'));
    tx.update(ruleRuns).set({ takenBackAt: now }).where(eq(ruleRuns.id, run.id)).run();
    const of = changedBy(tx, run.id).size;
    return addJob(tx, { kind: 'rule back', about: input, by: viewer.personId, of, now });
  });
  house.wakeJobs();
  const ended = await afterAWhile(house.db, viewer.personId, job);
  const { back, left } = (ended.result as TakenBack | null) ?? { back: 0, left: 0 };
  return { back, left, job: isEnded(ended) ? null : job };
}

function runOf(db: Reader, { form: key, run: id }: { readonly form: string; readonly run: string }) {
  const form = formByKey(db, key);
  const run = db.select().from(ruleRuns).where(eq(ruleRuns.id, id)).get();
  if (!form || run?.formId !== form.id) throw notFound('ruleRun');
  return { form, run };
}

/** How far taking back has come, and what it came to. */
interface TakenBack {
  readonly back: number;
  readonly left: number;
  /** The last request that was looked at: they come in the order of their ids. */
  readonly upTo: string;
}

/** Takes a run back, a few requests at a time. */
export async function putBack(house: House, doing: Doing<{ form: string; run: string }>): Promise<void> {
  const { db } = house;
  const { form, run } = runOf(db, doing.about);
  const viewer = viewerOf(db, doing.by);
  if (!viewer) return;
  const register = registerById(db, form.registerId);
  let told = (doing.before as TakenBack | null) ?? { back: 0, left: 0, upTo: '' };
  const rows = db
    .select()
    .from(ruleRunChanges)
    .where(and(eq(ruleRunChanges.runId, run.id), gt(ruleRunChanges.requestId, told.upTo)))
    .orderBy(asc(ruleRunChanges.requestId))
    .all();
  for await (const group of inGroups(rows)) {
    let here = told;
    await doing.step(group.length, (work) => {
      here = told;
      for (const row of group) {
        const { back, left } = backOf(work, viewer, register, run.name, row);
        here = { back: here.back + back, left: here.left + left, upTo: row.requestId };
      }
      return here;
    });
    told = here;
  }
}

/** Puts one request back, and counts what this viewer may read of it; the rest goes back along with it. */
function backOf(
  work: Work,
  viewer: Viewer,
  register: RegisterRow,
  rule: string,
  row: typeof ruleRunChanges.$inferSelect,
): { readonly back: number; readonly left: number } {
  const request = requestById(work.tx, row.requestId);
  if (!request) return { back: 0, left: 1 };
  const changes = row.changes.flatMap(({ field, before, after }): ValueChange[] => {
    const holds = own(request.values, field) ?? null;
    return canonicalJson(holds) === canonicalJson(after) ? [{ field, before: after, after: before }] : [];
  });
  const { readable } = openRequest(work.tx, request, viewer, 'counting', { register });
  const seen = (each: readonly ValueChange[]): number => each.filter(({ field }) => readable.has(field)).length;
  const left = seen(changes) < seen(row.changes) ? 1 : 0;
  if (changes.length === 0) return { back: 0, left };
  changeRequest(by(work, viewer.personId), request, { kind: 'values', why: 'taken back', rule, changes });
  return { back: seen(changes) > 0 ? 1 : 0, left };
}
