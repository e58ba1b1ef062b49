import type { Call } from './read.ts';

/** What answers otherwise than the data of an earlier release did, on purpose. */
interface Mended {
  /** Null: by any route. */
  readonly route: Call['route'] | null;
  /** Where in the answer, as a path, with both sides behind it. */
  readonly where: RegExp;
  readonly why: string;
}

export const MENDED: readonly Mended[] = [
  {
    route: 'advanceClock',
    where: /^\.body\.happened: \d+ → \d+$/,
    why: 'Not mended, but chance: the house rings timers by itself each second, and the call counts only what it rang. All that rang stands in the histories and letters that are compared.',
  },
  {
    route: null,
    where: /^\.body(\.detail)?: .*The Workshop is for coordinators\./,
    why: 'An administrator has no page to make somebody a coordinator.',
  },
  {
    route: 'draftHistory',
    where: /^\.body\.states\[1\]\.changes\.length: 5 → 2/,
    why: 'The oldest state of a draft was compared with what is in force today; it is compared with what was in force before it.',
  },
  {
    route: 'tryCondition',
    where: /^\.body\.ever\.(holds|fails|unsaid|of): (\d+) → (\d+)$/,
    why: 'What held “of all requests” counted trials.',
  },
  {
    route: 'moveStage',
    where: /^\.body\.version: 3 → 4/,
    why: 'What waits for its requester goes on when they have answered, as their page says.',
  },
  {
    route: 'sheet',
    where: /^\.body\.(version: 3 → 4|history\.length: (8 → 9|10 → 11))/,
    why: 'What waits for its requester goes on when they have answered: that stands in its history.',
  },
  {
    route: null,
    where: /^\.body\.(states\[\d+\]\.)?changes\[\d+\]\.reaches: "form" → "register"/,
    why: 'What requests are called, what must not be asked twice and what is usual belongs to the register, and is said to reach it.',
  },
  {
    route: 'ledger',
    where: /^\.body\.rows\[\d+\]\.(priority: "normal"|fuse: \{"state":"done".*\}|due: ".*") → null$/,
    why: 'Things were filled up with what a request has; what is not theirs is empty.',
  },
  {
    route: 'sheet',
    where:
      /^\.body\.(priority: "normal" → null|fuse: \{"state":"done".*\} → null|dueWords: ".*" → null|routing: \{.*\} → null|dueWhy\.length: \d+ → 0|hops\.length: 4 → 3)$/,
    why: 'Things were filled up with what a request has; what is not theirs is empty.',
  },
  {
    route: 'bytes',
    where: /^\.body\[\d+\]\[6\]: "\d{4}-\d\d-\d\dT.*Z" → ""$/,
    why: 'Nothing about things is due; when a request was due stands in the facts that are compared.',
  },
  {
    route: 'form',
    where: /^\.body\.grid\[\d+\]\.cells\.length: 4 → 3$/,
    why: 'The access page of a register of things named the group that decides on requests; nobody decides on things.',
  },
  {
    route: null,
    where: /^\.body\..*kind: "auto-number" → "running-number"$/,
    why: 'Running numbers are called so.',
  },
  {
    route: null,
    where:
      /^\.body\.(draft|design|states\[\d+\]\.design)\.approval\.step: \{"id":"[\w-]+","label":"[^"]+","group":"[\w-]+"\} → undefined$/,
    why: 'A path is a list of steps; that each has the step it had is held beside.',
  },
  {
    route: 'door',
    where: /^\.body\.refusal: "This form is for the station’s own staff\. .*" → "This form is for our own staff\. .*"$/,
    why: 'Not every house is a station.',
  },
];

const MINUTES: Readonly<Record<string, number>> = { D: 1_440, H: 60, M: 1 };

/** Whether all that differs is that a length of time is kept in minutes: as many as its text said. */
export function isSameLength(path: string): boolean {
  const [, text = '', minutes = ''] = /: "P([\dDTHM]+)" → (\d+)$/.exec(path) ?? [];
  const said = [...text.matchAll(/(\d+)([DHM])/g)].reduce(
    (sum, [, n, unit]) => sum + Number(n) * (MINUTES[unit ?? ''] ?? 0),
    0,
  );
  return text !== '' && said === Number(minutes);
}

/** Letters that went then and go no more, or go now and did not, each by its subject. */
export const FEWER_LETTERS: readonly { readonly subject: RegExp; readonly why: string }[] = [
  { subject: /^AC-00022 · Come on site: In hand$/, why: 'It went on before somebody took it in hand.' },
];
export const MORE_LETTERS: readonly { readonly subject: RegExp; readonly why: string }[] = [
  { subject: /^AC-00022 · Come on site: We have it$/, why: 'Who answered hears that their request goes on.' },
];
