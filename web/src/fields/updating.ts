import type { AnswerOf } from '@tolvek/contract';
import {
  type Changeable,
  type Completion,
  changedOver,
  choiceOf,
  completedOver,
  meantBy,
  saidIn,
} from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import type { Field, FieldValue, Problem, RawAnswers, RequestFacts } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { factsWith } from './factsWith.ts';

type Form = NonNullable<AnswerOf<'door'>['form']>;
type Updates = NonNullable<Form['updates']>;
export type Theirs = Updates['theirs'][number];
type Complete = (answers: RawAnswers, facts: RequestFacts) => Completion;

/** What a form that changes what is there is about, with the answers so far. */
export type About =
  | { readonly is: 'one'; readonly one: Theirs; readonly among: readonly Theirs[] }
  /** `several`: they have to say which; `none`: nothing of theirs fits; `unknown`: that can’t be said yet. */
  | { readonly is: 'several' | 'none' | 'another' | 'unknown'; readonly among: readonly Theirs[] };

export interface Updating {
  readonly updates: Updates;
  readonly about: About;
  /** What they say, as it is sent: null takes away. */
  readonly says: RawAnswers;
}

/** What rules may know, with the files and requests that stand in one of theirs. */
const knowing = (facts: RequestFacts, { files, references }: Pick<Theirs, 'files' | 'references'>): RequestFacts =>
  factsWith(facts, { files: [...facts.files, ...files], references: [...facts.references, ...references] });

/** What of theirs may be changed, with what it holds. */
export const changeableIn = (
  { updates, facts }: Pick<Form, 'updates'> & { readonly facts: RequestFacts },
  complete: Complete,
): readonly Changeable[] =>
  (updates?.theirs ?? []).map((one) => ({ id: one.id, values: complete(one.stood, knowing(facts, one)).values }));

/** What answers to a form that changes what is there are about, and what they say; null for a form that adds. */
export function updatingWith(
  complete: Complete,
  { updates, fields }: Pick<Form, 'updates' | 'fields'>,
  theirs: readonly Changeable[],
  {
    answers,
    typed,
    facts,
  }: {
    readonly answers: RawAnswers;
    /** Which of theirs is meant, and the questions whose answers are taken away. */
    readonly typed: { readonly entry?: string | undefined; readonly cleared?: readonly string[] | undefined };
    readonly facts: RequestFacts;
  },
): Updating | null {
  if (!updates) return null;
  const { entry, cleared = [] } = typed;
  const said = saidIn(Object.fromEntries(Object.entries(answers).filter(([, answer]) => answer !== null)));
  const says = { ...said, ...Object.fromEntries(cleared.map((field) => [field, null])) };
  const whole = new Map(updates.theirs.map((one) => [one.id, one]));
  const { values } = complete(said, facts);
  const by = { by: updates.by, ...(updates.beside ? { beside: true as const } : {}) };
  const fits = meantBy({ by: by.by, beside: true }, fields, values, theirs, null);
  const among = (fits.is === 'several' ? fits.among : []).flatMap(({ id }) => whole.get(id) ?? []);
  const meant = meantBy(by, fields, values, theirs, updates.sent ? 'sent' : choiceOf(entry));
  if (meant.is === 'one') {
    const one = whole.get(meant.one.id);
    return { updates, says, about: one ? { is: 'one', one, among } : { is: 'none', among } };
  }
  const isSaid = updates.by.every((field) => values[field] !== undefined);
  return { updates, says, about: { is: meant.is === 'none' && !isSaid ? 'unknown' : meant.is, among } };
}

/** What answers come to over what stands there. */
export function completedOverTheirs(
  complete: Complete,
  one: Theirs,
  says: RawAnswers,
  facts: RequestFacts,
): Completion & { readonly problems: readonly Problem[] } {
  const { completion, problems } = completedOver(complete, one.stood, says, knowing(facts, one));
  return { ...completion, problems };
}

/** One field that a change makes otherwise, as it was and as it is after. */
export interface Changed {
  readonly field: Field;
  readonly before: FieldValue | undefined;
  readonly after: FieldValue | undefined;
}

/** What a change comes to in what stands there: what is said, and what rules make of that. */
export function changesOf(
  complete: Complete,
  { fields, by }: { readonly fields: readonly Field[]; readonly by: readonly string[] },
  one: Theirs,
  says: RawAnswers,
  facts: RequestFacts,
): readonly Changed[] {
  const over = completedOver(complete, one.stood, says, knowing(facts, one));
  const changed = changedOver(fields, by, over, says);
  return fields.flatMap((field) => {
    const [before, after] = [own(over.before.values, field.key), own(over.completion.values, field.key)];
    const isOtherwise = Object.hasOwn(changed, field.key) && JSON.stringify(before) !== JSON.stringify(after);
    return isOtherwise ? [{ field, before, after }] : [];
  });
}

/** What is wrong about what they mean: that it has to be said, or that there is nothing. */
export function whichProblems(updating: Updating | null): readonly Problem[] {
  if (!updating) return [];
  const { about, updates, says } = updating;
  if (about.is === 'one' && Object.keys(says).every((field) => updates.by.includes(field)))
    return [{ field: 'form', message: said('answers:nothingSaid'), fix: said('answers:pressStillRight') }];
  if (about.is === 'several')
    return [{ field: 'form', message: said('answers:whichEntry'), fix: said('answers:chooseEntry') }];
  if (about.is === 'none' && !updates.adds)
    return [{ field: 'form', message: said('answers:nothingYours'), fix: said('answers:otherAnswers') }];
  return [];
}

/** The answers by which one of theirs is found; empty ones for another. */
export const foundBy = ({ updates: { by, theirs } }: Updating, entry: string): RawAnswers => {
  const stood = theirs.find(({ id }) => id === entry)?.stood ?? {};
  return Object.fromEntries(by.map((field) => [field, stood[field] ?? null]));
};

/** Whether what stands in a question can be taken away; null where it is not asked what is to stand there. */
export function canRemove(updating: Updating | null, { asked }: Completion, field: string): boolean | null {
  const question = asked.find((each) => each.field === field);
  if (!updating || !question || question.locked || updating.updates.by.includes(field)) return null;
  return !question.required;
}
