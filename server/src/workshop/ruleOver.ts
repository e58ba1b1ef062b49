import { createHash } from 'node:crypto';
import type { Reading, ValueChange } from '@tolvek/core/access';
import { namesIn } from '@tolvek/core/expression';
import { type FormDesign, type FormRule, prepareKeeping, sinksOf } from '@tolvek/core/form';
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
import { refused, type Said, said } from '@tolvek/words';
import { and } from 'drizzle-orm';
import { type FormRow, formByKey } from '../form/queries.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { changesBetween } from '../request/changes.ts';
import { takenAnswers } from '../request/claims.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { factsOfRequest, pickedBy } from '../request/facts.ts';
import { openRequest } from '../request/open.ts';
import type { RequestRow, ShownRow } from '../request/queries.ts';
import { offerProblems } from '../request/references.ts';
import type { Found } from './findings.ts';

export interface Input {
  readonly form: string;
  readonly rule: string;
  readonly among: 'unfinished' | 'all';
  /** What stood for the dry run that was shown, to do just that; null for a dry run. */
  readonly shown: string | null;
}

/** What the rule would do to one request. */
export interface Step {
  readonly id: string;
  readonly version: number;
  readonly changes: readonly ValueChange[];
  /** Those that the viewer may read. */
  readonly seen: readonly ValueChange[];
  readonly problems: readonly FieldProblem[];
}

/** What is the same for all requests that a rule is looked at over. */
export interface Over {
  readonly viewer: Viewer;
  readonly rule: FormRule;
  readonly register: RegisterRow;
  /** What keeping a request by the rule alone comes to, for one list of fields. */
  readonly keepingFor: (fields: readonly Field[]) => ReturnType<typeof prepareKeeping>;
  readonly picked: ReturnType<typeof pickedBy>;
}

export interface Plan extends Over {
  readonly form: FormRow;
  readonly looked: number;
  /** Requests that would change, or that the rule or a limit refuses. */
  readonly steps: readonly Step[];
  /** Stands for all of it: another one when anything about it has changed. */
  readonly shown: string;
}

export async function planOf(
  { db, clock }: House,
  viewer: Viewer,
  { form: key, rule: id, among }: Input,
  found: Found,
): Promise<Plan> {
  const form = formByKey(db, key);
  const rule = form?.draft.rules.find((each) => each.id === id);
  if (!form || !rule) throw notFound('rule');
  const errors = found.findings.filter((finding) => finding.at === rule.id && finding.severity === 'error');
  if (errors.length > 0)
    throw new Problem(
      422,
      'rule-has-errors',
      refused('ruleErrors', {
        problems: said('common:sentences', { sentences: errors.map(({ message }) => message) }),
      }),
      errors.map(({ message }) => ({ field: rule.id, message, fix: said('workshopErrors:correctRule') })),
    );
  const register = registerById(db, form.registerId);
  const asked = askableOf(db, viewer, register, [...namesOfRule(rule, form)]);
  if (asked.unknown.length > 0)
    throw new Problem(
      422,
      'rule-has-errors',
      refused('ruleUnread', { problems: said('common:sentences', { sentences: asked.unknown.map(unknownName) }) }),
      asked.unknown.map((name) => ({
        field: rule.id,
        message: unknownName(name),
        fix: said('workshopErrors:removeFromRule'),
      })),
    );
  const over = overBy(db, viewer, { rule, parts: form.draft.parts }, register);
  const now = clock.now();
  const steps: Step[] = [];
  let looked = 0;
  for await (const request of inTurns(eachRequest(db, and(countedIn(register.id, among), asked.where)))) {
    looked += 1;
    const step = stepOf(db, over, request, now);
    // What follows in fields that the viewer may not read neither counts nor is told.
    if (step.problems.length > 0 || step.seen.length > 0) steps.push(step);
  }
  const told = steps.map(({ id: each, version, seen, problems }) => [each, version, seen, problems.length]);
  const shown = createHash('sha256')
    .update(canonicalJson([form.id, rule, among, told]))
    .digest('base64url');
  return { ...over, form, looked, steps, shown };
}

export function overBy(
  db: Reader,
  viewer: Viewer,
  { rule, parts }: { readonly rule: FormRule; readonly parts: FormDesign['parts'] },
  register: RegisterRow,
): Over {
  // Requests are computed by different releases: each as its own says.
  const keeping = new Map<readonly Field[], ReturnType<typeof prepareKeeping>>();
  const rules: readonly FormRule[] = [{ ...rule, on: true, runs: 'saving' }];
  const keepingFor = (fields: readonly Field[]): ReturnType<typeof prepareKeeping> => {
    const keep = keeping.get(fields) ?? prepareKeeping({ fields, parts, rules });
    keeping.set(fields, keep);
    return keep;
  };
  return { viewer, rule, register, keepingFor, picked: pickedBy(db, register.fields) };
}

/** What the rule would do to one request. */
export function stepOf(
  db: Reader,
  { viewer, register, keepingFor, picked }: Over,
  request: ShownRow,
  now: number,
): Step {
  const facts = factsOfRequest(db, request, register, now, { picked });
  const { reading, fields } = openRequest(db, request, viewer, 'counting', { register });
  const kept = keepingFor(fields)(request.values, new Set(), facts);
  const changes = changesBetween(fields, request.values, kept.values);
  const seen = changes.filter((change) => reading.readable.has(change.field));
  const problems =
    kept.problems.length > 0
      ? kept.problems
      : limitsBroken(db, register, request, seen, reading, { ...facts, values: kept.values });
  const { id, version } = request;
  if (problems.length > 0) return { id, version, changes: [], seen: [], problems };
  return { id, version, changes: seen.length > 0 ? changes : [], seen, problems };
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
  return read.state === 'wrong'
    ? [{ field: key, message: said('answers:fieldSays', { label: field.label, message: read.message }), fix: read.fix }]
    : [];
}

const unknownName = (name: string): Said => said('workshopErrors:nothingCalled', { name });

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
