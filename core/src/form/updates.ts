import { own } from '../own/index.ts';
import {
  type Field,
  type FieldValue,
  isFilled,
  type Problem,
  type RawAnswer,
  type RawAnswers,
  type RequestFacts,
  typedForm,
  type Values,
} from '../register/index.ts';
import { type Completion, type prepareCompletion, refusalsOf } from './complete.ts';
import type { FormDesign, Updates } from './design.ts';
import { claimOf } from './unique.ts';

/** Whose requests an update form finds, besides those that stand in a field: what they asked for themselves. */
export const OWN_REQUESTS = '~requester';

/** Something of theirs that somebody’s answers may change. */
export interface Changeable {
  readonly id: string;
  /** What it holds, as far as they may read it. */
  readonly values: Values;
}

/** What answers to an update form are about. */
export type Meant<One extends Changeable = Changeable> =
  | { readonly is: 'one'; readonly one: One }
  /** Several of theirs have these answers: they say which. */
  | { readonly is: 'several'; readonly among: readonly One[] }
  /** Nothing of theirs has them. */
  | { readonly is: 'none' }
  /** They want another one beside what is there. */
  | { readonly is: 'another' };

/** What is said of which one is meant: one of theirs by its id, another one, or the very one that was sent to them. */
export type Choice = { readonly id: string } | 'another' | 'sent' | null;

/** What somebody chose where that has to be said, as it is sent: an id, or `another`. */
export const choiceOf = (entry: string | undefined): Choice =>
  entry === undefined || entry === 'another' ? (entry ?? null) : { id: entry };

/**
 * What answers are about, of what is theirs: what has the same answers to the questions to find it by, compared as
 * answers that no two may have; a blank is the same as nothing. What was sent to them is looked for by nothing.
 * `values`: what the answers come to.
 */
export function meantBy<One extends Changeable>(
  { by, beside }: Pick<Updates, 'by' | 'beside'>,
  fields: readonly Field[],
  values: Values,
  theirs: readonly One[],
  choice: Choice,
): Meant<One> {
  if (choice === 'sent') return theirs[0] ? { is: 'one', one: theirs[0] } : { is: 'none' };
  const rule = { id: '', fields: by, among: 'all' } as const;
  const wanted = claimOf(rule, fields, values);
  const among = wanted === null ? [] : theirs.filter((one) => claimOf(rule, fields, one.values) === wanted);
  if (choice === 'another' && beside) return { is: 'another' };
  const chosen = choice && choice !== 'another' ? among.find(({ id }) => id === choice.id) : undefined;
  if (chosen) return { is: 'one', one: chosen };
  const [first] = among;
  if (!first) return { is: 'none' };
  // Where another one is allowed, what is meant is always said.
  return among.length === 1 && !beside ? { is: 'one', one: first } : { is: 'several', among };
}

const isBlank = (answer: RawAnswer | undefined): boolean =>
  answer === undefined || answer === '' || (Array.isArray(answer) && answer.length === 0);

/** What stands in the questions of a form, as it would be typed; null in those where nothing does. */
export function stoodIn({ fields, parts }: Pick<FormDesign, 'fields' | 'parts'>, values: Values): RawAnswers {
  const asked = new Set(parts.flatMap((part) => (part.part === 'question' ? [part.field] : [])));
  return Object.fromEntries(
    fields.flatMap((field): [string, RawAnswer][] => {
      if (!asked.has(field.key)) return [];
      const value = own(values, field.key);
      return [[field.key, value === undefined ? null : typedForm(field, value)]];
    }),
  );
}

/** Answers that say something: a blank leaves what stands there, null takes it away. */
export const saidIn = (answers: RawAnswers): RawAnswers =>
  Object.fromEntries(Object.entries(answers).filter(([, answer]) => !isBlank(answer)));

/**
 * What answers come to over what stands there, and what is wrong: of what they change, and of what is only asked for by
 * that. What was wrong before is no reason to refuse a change; nor is what stands in a question that they are not asked
 * any more, or that the form fills in itself now. `dropped`: what stands there and is stored no more.
 */
export function completedOver(
  complete: ReturnType<typeof prepareCompletion>,
  stood: RawAnswers,
  answers: RawAnswers,
  facts: RequestFacts,
): {
  readonly completion: Completion;
  readonly before: Completion;
  readonly problems: readonly Problem[];
  readonly dropped: readonly string[];
} {
  const before = complete(stood, facts);
  const completion = complete({ ...stood, ...answers }, facts);
  const known = new Set(refusalsOf(before).map(({ field }) => field));
  const open = new Set(completion.asked.flatMap(({ field, locked }) => (locked ? [] : [field])));
  const isAnswered = (key: string): boolean => Object.hasOwn(answers, key);
  const isLeft = (key: string): boolean => Object.hasOwn(stood, key) && !isAnswered(key) && !open.has(key);
  const problems = refusalsOf(completion).filter(
    ({ field }) => isAnswered(field) || (!known.has(field) && !isLeft(field)),
  );
  const there = new Set(completion.asked.map(({ field }) => field));
  const dropped = before.asked.flatMap(({ field }) =>
    isLeft(field) && !there.has(field) && own(completion.values, field) === undefined ? [field] : [],
  );
  return { completion, before, problems, dropped };
}

/**
 * What answers change of what stands there: what they say, and what rules of the form make of that. What it was found by
 * stays as it is.
 */
export function changedOver(
  fields: readonly Field[],
  by: readonly string[],
  { completion, before }: Pick<ReturnType<typeof completedOver>, 'completion' | 'before'>,
  answers: RawAnswers,
): RawAnswers {
  const now = (values: Values, key: string): FieldValue | undefined => own(values, key);
  const locked = new Set(completion.asked.flatMap((question) => (question.locked ? [question.field] : [])));
  return Object.fromEntries(
    fields.flatMap((field): [string, RawAnswer][] => {
      const { key } = field;
      if (!isFilled(field) || by.includes(key)) return [];
      if (Object.hasOwn(answers, key)) return [[key, answers[key] ?? null]];
      const after = now(completion.values, key);
      if (JSON.stringify(after) === JSON.stringify(now(before.values, key))) return [];
      // What nobody may fill in any more stays as it stands, unless the form fills it in.
      if (after === undefined && locked.has(key)) return [];
      return [[key, after === undefined ? null : typedForm(field, after)]];
    }),
  );
}
