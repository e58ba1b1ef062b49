import {
  type Field,
  type Kind,
  NOTHING_AROUND,
  type RawAnswer,
  type RawAnswers,
  readAnswer,
} from '../register/index.ts';

/** Kinds whose answers are a line of text, or several of them: what else is picked or sent is not written in an address. */
const WRITTEN: ReadonlySet<Kind['kind']> = new Set([
  ...(['text', 'long-text', 'number', 'money', 'date', 'date-time', 'yes-no', 'email', 'phone', 'link'] as const),
  ...(['duration', 'choice', 'choices', 'level'] as const),
]);

/** Whether a field can say whose a request is: one for a person, or for an address, that is known when it comes in. */
export const saysWhose = ({ source, type }: Pick<Field, 'source' | 'type'>): boolean =>
  source !== 'desk-only' && (type.kind === 'person' || type.kind === 'email');

/** Whether an answer to a field can stand in a link. */
export const canComeByLink = ({ source, type }: Pick<Field, 'source' | 'type'>): boolean =>
  source === 'asked' && WRITTEN.has(type.kind);

/** Before the key of a field in an address: `a.visitor=Ida`. */
const MARK = 'a.';

/**
 * The answers that an address brings along for fields that allow it, as far as they can be read. Several of one field
 * are several choices.
 */
export function answersIn(
  fields: readonly Field[],
  prefills: readonly string[],
  address: Iterable<readonly [string, string]>,
): RawAnswers {
  const given = new Map<string, string[]>();
  for (const [name, text] of address)
    if (name.startsWith(MARK))
      given.set(name.slice(MARK.length), [...(given.get(name.slice(MARK.length)) ?? []), text]);
  const answers: Record<string, RawAnswer> = {};
  for (const field of fields) {
    const texts = given.get(field.key);
    if (!texts || !prefills.includes(field.key) || !canComeByLink(field)) continue;
    const answer: RawAnswer = field.type.kind === 'choices' ? texts : (texts[0] ?? '');
    if (readAnswer(field, answer, NOTHING_AROUND).state === 'value') answers[field.key] = answer;
  }
  return answers;
}

/** What an address brings along, for its end: `?a.visitor=Ida`; nothing for no answers. */
export function linkEnding(answers: RawAnswers): string {
  const search = new URLSearchParams();
  for (const [key, answer] of Object.entries(answers))
    for (const each of Array.isArray(answer) ? answer : [answer])
      if (each !== null && String(each) !== '') search.append(`${MARK}${key}`, String(each));
  const text = search.toString();
  return text === '' ? '' : `?${text}`;
}
