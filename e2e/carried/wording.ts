import { english } from '@tolvek/words/english';

/**
 * What was said in words by an earlier release is said otherwise today, and in more languages. What
 * the words are about has to be the same: names, labels, what people typed, numbers of requests,
 * moments and links.
 */

interface SaidNow {
  readonly say: string;
  readonly with?: Readonly<Record<string, unknown>>;
}

export const isSaid = (value: unknown): value is SaidNow =>
  typeof value === 'object' && value !== null && 'say' in value && typeof value.say === 'string';

const plain = (text: string): string => text.replace(/€\s/g, '€').replace(/\s+/g, ' ').toLowerCase();
const MOMENT = /^\d{4}-\d\d-\d\d(T[\d:.]+Z?)?$/;

/** What somebody named or typed, wherever in a sentence it stands. */
function filledIn(value: unknown): readonly string[] {
  if (typeof value === 'string') return MOMENT.test(value) ? [] : [value];
  if (Array.isArray(value)) return value.flatMap(filledIn);
  if (isSaid(value)) return Object.values(value.with ?? {}).flatMap(filledIn);
  return [];
}

const quoted = (text: string): readonly string[] => text.match(/“[^“”]+”/g) ?? [];

/** Whether a sentence of today is about what the sentence of then was about. */
export function tellsTheSame(was: string, is: SaidNow): boolean {
  const now = plain(String(english(is)));
  const then = plain(was);
  return (
    filledIn(is).every((each) => then.includes(plain(each))) && quoted(was).every((name) => now.includes(plain(name)))
  );
}

interface Problem {
  readonly type: string;
  readonly title: string;
  readonly detail: string;
}
export const isProblem = (value: unknown): value is Problem =>
  typeof value === 'object' &&
  value !== null &&
  'type' in value &&
  typeof value.type === 'string' &&
  value.type.startsWith('urn:tolvek:problem:');

/** Names that a refusal of then told and the refusal of today does not. */
export function namesLost(was: Problem, is: Problem): readonly string[] {
  const now = plain(`${is.title} ${is.detail}`);
  return quoted(`${was.title} ${was.detail}`).filter((name) => !now.includes(plain(name)));
}

/** Letters of each kind: how they were called then, and are today, with the number of the request. */
const SUBJECTS: readonly (readonly [then: RegExp, now: RegExp])[] = [
  [/^(\S+) · 0 min left: (.*)$/, /^Due in 0 minutes of working time: (.*) \((\S+)\)$/],
  [/^(\S+) · Late: (.*)$/, /^Overdue: (.*) \((\S+)\)$/],
  [/^(\S+) · (.*): a message from .*$/, /^.* wrote to you: (.*) \((\S+)\)$/],
  [/^(\S+) · (.*): not approved$/, /^Not approved: (.*) \((\S+)\)$/],
  [/^(\S+) · (.*): approved$/, /^Approved: (.*) \((\S+)\)$/],
  [/^(\S+) · (.*): we have your request$/, /^We received your request: (.*) \((\S+)\)$/],
  [/^(\S+) · (.*): In hand$/, /^We continue: (.*) \((\S+)\)$/],
  [/^(\S+) · (.*)$/, /^New request for [^:]*: (.*) \((\S+)\)$/],
];

export type Letter = Readonly<Record<string, string>>;

/** Whether a letter of today is the letter that went then, in other words. */
export function isSameLetter(was: Letter, is: Letter): boolean {
  if (was.to !== is.to) return false;
  const kind = SUBJECTS.find(([then]) => then.test(was.subject ?? ''));
  const [, number, about] = kind?.[0].exec(was.subject ?? '') ?? [];
  const [, aboutNow, numberNow] = kind?.[1].exec(is.subject ?? '') ?? [];
  if (number === undefined || number !== numberNow || about !== aboutNow) return false;
  const now = plain(is.text ?? '');
  // What was asked and answered stands in lines of its own; of a sentence, what it says of the request.
  const told = (was.text ?? '').split('\n').flatMap((line) => {
    const [whole, , value = ''] = /^([^.:]+): (\S.*)$/.exec(line) ?? [];
    return whole === undefined ? [] : value.endsWith('.') ? [value] : [whole];
  });
  return (
    [...told, ...quoted(was.text ?? '')].every((line) => now.includes(plain(line))) &&
    ways(was).every((way) => ways(is).includes(way))
  );
}

/** Where the links of a letter lead, but for their tokens. */
const ways = ({ text = '' }: Letter): readonly string[] =>
  (text.match(/http:\/\/127\.0\.0\.1:\d+\/\S+/g) ?? []).map((link) =>
    new URL(link).pathname.replace(/[\w-]{22,}/, '#').replace(/\/$/, ''),
  );
