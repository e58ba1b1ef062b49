import { createHash } from 'node:crypto';
import type { AnswerOf } from '@tolvek/contract';
import type { Reading, ValueChange } from '@tolvek/core/access';
import { namesIn } from '@tolvek/core/expression';
import { type FormRule, prepareKeeping, sinksOf } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import {
  FACT_NAMES,
  type Field,
  type Problem as FieldProblem,
  type FieldValue,
  orderProblems,
  readAnswer,
  typedForm,
} from '@tolvek/core/register';
import { and, desc, eq, isNull } from 'drizzle-orm';
import { v7 as uuid } from 'uuid';
import { type FormRow, formByKey } from '../form/queries.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Database, Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { storing } from '../platform/patience.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { inGroups, inTurns } from '../platform/turns.ts';
import { by, write } from '../platform/work.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { registers } from '../register/tables.ts';
import { askableOf } from '../request/asking.ts';
import { changeRequest } from '../request/change.ts';
import { changesBetween } from '../request/changes.ts';
import { takenAnswers } from '../request/claims.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { factsOfRequest, pickedBy } from '../request/facts.ts';
import { nameOf } from '../request/names.ts';
import { openRequest } from '../request/open.ts';
import { type RequestRow, requestById, type ShownRow } from '../request/queries.ts';
import { offerProblems } from '../request/references.ts';
import { ruleRunChanges, ruleRuns } from '../request/tables.ts';
import type { Found } from './findings.ts';

/** Requests that are listed one by one; all of them are counted. */
const LISTED = 50;

interface Input {
  readonly form: string;
  readonly rule: string;
  readonly among: 'unfinished' | 'all';
  /** What stood for the dry run that was shown, to do just that; null for a dry run. */
  readonly shown: string | null;
}

/** What the rule would do to one request. */
interface Step {
  readonly id: string;
  readonly version: number;
  readonly changes: readonly ValueChange[];
  /** Those that the viewer may read. */
  readonly seen: readonly ValueChange[];
  readonly problems: readonly FieldProblem[];
}

interface Plan {
  readonly form: FormRow;
  readonly rule: FormRule;
  readonly register: RegisterRow;
  readonly looked: number;
  /** Requests that would change, or that the rule or a limit refuses. */
  readonly steps: readonly Step[];
  /** Stands for all of it: another one when anything about it has changed. */
  readonly shown: string;
}

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
  if (input.shown !== plan.shown)
    throw new Problem(
      409,
      'changed-meanwhile',
      'Changed since the dry run',
      'The rule, or the requests, changed after you saw what it would do. Nothing was changed. Look at it again first.',
    );
  const run = uuid();
  const done: Step[] = [];
  const toChange = plan.steps.filter((step) => step.changes.length > 0);
  for await (const group of inGroups(toChange))
    done.push(
      ...(await storing(house, () =>
        write(house, (work) => {
          const { tx, now } = work;
          if (done.length === 0)
            tx.insert(ruleRuns)
              .values({
                id: run,
                formId: plan.form.id,
                rule: plan.rule.id,
                name: plan.rule.name,
                by: viewer.personId,
                at: now,
              })
              .onConflictDoNothing()
              .run();
          if (done.length === 0) rememberRan(tx, plan);
          return group.filter((step) => {
            const request = requestById(tx, step.id);
            // Somebody was faster: this one is left as it is, and not counted.
            if (!request || request.version !== step.version) return false;
            const change = { kind: 'values', why: 'rule', rule: plan.rule.name, changes: step.changes } as const;
            changeRequest(by(work, viewer.personId), request, change);
            tx.insert(ruleRunChanges).values({ runId: run, requestId: step.id, changes: step.changes }).run();
            return true;
          });
        }),
      )),
    );
  return answerOf(house.db, viewer, plan, done.length > 0 ? run : null, [
    ...done,
    ...plan.steps.filter((step) => step.problems.length > 0),
  ]);
}

/** From now on the fields of all these requests are made by this rule as well. */
function rememberRan(tx: Transaction, { register: { id }, form, rule }: Plan): void {
  const { ran } = registerById(tx, id);
  const one = { form: form.id, rule: { ...rule, says: '' } };
  if (ran.some((each) => canonicalJson(each) === canonicalJson(one))) return;
  tx.update(registers)
    .set({ ran: [...ran, one] })
    .where(eq(registers.id, id))
    .run();
}

async function planOf(
  { db, clock }: House,
  viewer: Viewer,
  { form: key, rule: id, among }: Input,
  found: Found,
): Promise<Plan> {
  const form = formByKey(db, key);
  const rule = form?.draft.rules.find((each) => each.id === id);
  if (!form || !rule) throw notFound('This rule');
  const errors = found.findings.filter((finding) => finding.at === rule.id && finding.severity === 'error');
  if (errors.length > 0)
    throw new Problem(
      422,
      'rule-has-errors',
      'The rule has errors',
      `A rule with errors is not applied to anything. ${errors[0]?.message ?? ''}`,
      errors.map(({ message }) => ({ field: rule.id, message, fix: 'Correct the rule, then look again.' })),
    );
  const register = registerById(db, form.registerId);
  const asked = askableOf(db, viewer, register, [...namesOfRule(rule, form)]);
  if (asked.unknown.length > 0)
    throw new Problem(
      422,
      'rule-has-errors',
      'The rule has errors',
      `A rule is applied by whoever may read what it reads. ${asked.unknown.map(unknownName).join(' ')}`,
      asked.unknown.map((name) => ({
        field: rule.id,
        message: unknownName(name),
        fix: 'Leave it out of the rule, or ask somebody who may read it.',
      })),
    );
  // Requests are computed by different releases: each as its own says.
  const keeping = new Map<readonly Field[], ReturnType<typeof prepareKeeping>>();
  const keepingFor = (fields: readonly Field[]): ReturnType<typeof prepareKeeping> => {
    const rules: readonly FormRule[] = [{ ...rule, on: true, runs: 'saving' }];
    const keep = keeping.get(fields) ?? prepareKeeping({ fields, parts: form.draft.parts, rules });
    keeping.set(fields, keep);
    return keep;
  };
  const now = clock.now();
  const picked = pickedBy(db, register.fields);
  const steps: Step[] = [];
  let looked = 0;
  for await (const request of inTurns(eachRequest(db, and(countedIn(register.id, among), asked.where)))) {
    looked += 1;
    const facts = factsOfRequest(db, request, register, now, { picked });
    const { reading, fields } = openRequest(db, request, viewer, 'counting', { register });
    const kept = keepingFor(fields)(request.values, new Set(), facts);
    const changes = changesBetween(fields, request.values, kept.values);
    const seen = changes.filter((change) => reading.readable.has(change.field));
    const problems = [
      ...kept.problems,
      ...(kept.problems.length > 0
        ? []
        : limitsBroken(db, register, request, seen, reading, { ...facts, values: kept.values })),
    ];
    // What follows in fields that the viewer may not read neither counts nor is told.
    if (problems.length > 0 || seen.length > 0)
      steps.push({
        id: request.id,
        version: request.version,
        changes: problems.length > 0 ? [] : changes,
        seen: problems.length > 0 ? [] : seen,
        problems,
      });
  }
  const told = steps.map(({ id: each, version, seen, problems }) => [each, version, seen, problems.length]);
  const shown = createHash('sha256')
    .update(canonicalJson([form.id, rule, among, told]))
    .digest('base64url');
  return { form, rule, register, looked, steps, shown };
}

/**
 * Limits of fields that what a rule puts there would break: of their kinds, their order,
 * uniqueness, and what references offer.
 */
function limitsBroken(
  db: Reader,
  register: RegisterRow,
  request: ShownRow,
  changes: readonly ValueChange[],
  reading: Reading,
  { values, ...facts }: ReturnType<typeof factsOfRequest> & { readonly values: RequestRow['values'] },
): readonly FieldProblem[] {
  const changed = new Set(changes.map((each) => each.field));
  return [
    ...changes.flatMap((each) => wrongIn(register.fields, each, facts)),
    ...orderProblems(
      register.fields.filter((field) => reading.readable.has(field.key)),
      values,
    ).filter((problem) => changed.has(problem.field)),
    ...takenAnswers(db, {
      register,
      protection: reading.protection,
      values,
      asker: null,
      but: request,
    }).filter((problem) => changed.has(problem.field)),
    ...offerProblems(
      db,
      { fields: register.fields, values: reading.only(values), facts, asker: request.requesterId },
      changed,
    ),
  ];
}

function wrongIn(
  fields: readonly Field[],
  { field: key, after }: ValueChange,
  facts: ReturnType<typeof factsOfRequest>,
): readonly FieldProblem[] {
  const field = fields.find((each) => each.key === key);
  // What is computed or brought along follows from elsewhere; files are none of a rule’s business.
  if (
    !field ||
    after === null ||
    field.source === 'computed' ||
    field.source === 'carried' ||
    field.type.kind === 'files'
  )
    return [];
  const read = readAnswer(field, typedForm(field, after as FieldValue), facts);
  return read.state === 'wrong' ? [{ field: key, message: `“${field.label}”: ${read.message}`, fix: read.fix }] : [];
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

const unknownName = (name: string): string => `There is nothing called “${name}” here.`;

/** What a rule reads of the requests that are there, and what it puts something into. */
function namesOfRule({ when, then, otherwise }: FormRule, { draft }: FormRow): ReadonlySet<string> {
  const made = sinksOf({
    ...draft,
    unique: [],
    routing: undefined,
    rules: [{ id: '', name: '', says: '', on: true, runs: 'saving', when, then, otherwise }],
  }).filter((sink) => sink.page === 'rules');
  return new Set(
    [
      ...namesIn(when),
      ...made.flatMap((sink) => [
        ...sink.reads.map((read) => read.field),
        ...(sink.readers.who === 'field' ? [sink.readers.field] : []),
      ]),
    ].filter((name) => !FACT_NAMES.has(name)),
  );
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
 * Takes back what a run of a rule changed: each field that still holds what the rule put there gets
 * back what it held before. What was changed since stays, and is counted.
 */
export async function takeRunBack(
  house: House,
  viewer: Viewer,
  input: { readonly form: string; readonly run: string },
): Promise<AnswerOf<'takeRunBack'>> {
  const { db } = house;
  const form = formByKey(db, input.form);
  const run = db.select().from(ruleRuns).where(eq(ruleRuns.id, input.run)).get();
  if (!form || run?.formId !== form.id) throw notFound('This run of a rule');
  if (run.takenBackAt !== null)
    throw new Problem(409, 'taken-back', 'Taken back already', 'This was taken back before.');
  const rows = db.select().from(ruleRunChanges).where(eq(ruleRunChanges.runId, run.id)).all();
  const register = registerById(db, form.registerId);
  const counted = { back: 0, left: 0 };
  for await (const group of inGroups(rows)) {
    const here = await storing(house, () =>
      write(house, (work) => {
        const { tx } = work;
        let [back, left] = [0, 0];
        for (const row of group) {
          const request = requestById(tx, row.requestId);
          const changes = row.changes.flatMap(({ field, before, after }): ValueChange[] => {
            const holds = (request && own(request.values, field)) ?? null;
            return canonicalJson(holds) === canonicalJson(after) ? [{ field, before: after, after: before }] : [];
          });
          // Counted is what this viewer may read; the rest goes back along with it.
          const readable = request ? openRequest(tx, request, viewer, 'counting', { register }).readable : new Set();
          const seen = (each: readonly ValueChange[]): number => each.filter(({ field }) => readable.has(field)).length;
          if (!request || seen(changes) < seen(row.changes)) left += 1;
          if (!request || changes.length === 0) continue;
          const change = { kind: 'values', why: 'taken back', rule: run.name, changes } as const;
          changeRequest(by(work, viewer.personId), request, change);
          if (seen(changes) > 0) back += 1;
        }
        // Counted once it is stored: a write that failed is done again.
        return { back, left };
      }),
    );
    counted.back += here.back;
    counted.left += here.left;
  }
  await storing(house, () =>
    write(house, ({ tx, now }) => tx.update(ruleRuns).set({ takenBackAt: now }).where(eq(ruleRuns.id, run.id)).run()),
  );
  return counted;
}
