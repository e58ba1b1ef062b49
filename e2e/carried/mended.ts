import { english } from '@tolvek/words/english';
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
    why: 'Staff who are signed in are known at doors for people from outside as well.',
    route: 'door',
    where:
      /^\.body\.form\.facts\.(requester(IsOutside: true → false|Id: null → "|Groups\.length: 0 → \d)|department: "" → ")/,
  },
  {
    route: 'form',
    where: /^\.body\.findings\.length: (0 → 1|3 → 4)$/,
    why: 'What people from outside read by a name of the desk’s is found.',
  },
  {
    route: 'forms',
    where: /^\.body\.forms\[\d+\]\.findings: (0 → 1|3 → 4)$/,
    why: 'What people from outside read by a name of the desk’s is found, and counted.',
  },
  {
    route: 'me',
    where: /^\.body\.person\.role: /,
    why: 'What somebody may do is a list of rights, where it was one of three words.',
  },
  {
    route: 'me',
    where: /^\.body\.desk\.station: /,
    why: 'The house of a desk is called its organisation, wherever the desk is: the same name stands there.',
  },
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
    route: null,
    where: /^\.body\..*\.needsApproval: (true|false) → undefined$/,
    why: 'Rows choose a path; that each chooses where it asked for a decision is held beside.',
  },
  {
    route: 'door',
    where: /^\.body\.refusal: "This form is for the station’s own staff\. .*" → "This form is for our own staff\. .*"$/,
    why: 'Not every house is a station.',
  },
  {
    route: null,
    where: /^\.body(\.desk)?\.(dueWords|nowWords|hoursWords): ".*" → undefined$/,
    why: 'Moments are moments, and each reader’s language says them: that they are the same ones is held beside.',
  },
  {
    route: 'trays',
    where: /^\.body\.(trays|horizon)\[\d\]\.label: ".*" → undefined$/,
    why: 'A tray is known by its key, and a day by its date; the page says them.',
  },
  {
    route: null,
    where: /^\.body\.(mine\[\d+\]\.)?promise: "" → null$/,
    why: 'What promises nothing is null, as elsewhere.',
  },
  {
    route: null,
    where: /^\.body\.hops\[\d\]\.detail: "(.*)" → "\1.+"$|^\.body\.hops\[\d\]\.detail: "Arrived" → "We have it"$/,
    why: 'Requesters read the stage’s words for them, and no words of the desk.',
  },
  {
    route: 'decisionLink',
    where: /^\.body\.hops\.length: 5 → 4$/,
    why: 'Who decides by a letter is not told of rows of a table.',
  },
  {
    route: null,
    where: /^\.body\.messages\[\d+\]\.from: "You" → ""$/,
    why: 'The page says “You” in the reader’s language.',
  },
  {
    route: null,
    where:
      /^\.body\.problems\[\d+\]\.message: "(This is taken|You already asked with this: ([A-Z]+-\d+))\." → \{"say":"answers:taken(ByYou","with":\{"number":"\2",|","with":\{)"fields":/,
    why: 'What is taken is named: the asker’s own questions.',
  },
];

/** The moments that were told in words then, and the same as moments today, in the words of a reader of English. */
export function momentsIn(was: unknown, is: unknown): readonly (readonly [then: unknown, now: unknown])[] {
  if (typeof was !== 'object' || was === null || typeof is !== 'object' || is === null) return [];
  const now = is as Readonly<Record<string, unknown>>;
  // Things are not due.
  if ('priority' in now && now.priority === null) return [];
  const told = (moment: unknown): unknown =>
    typeof moment === 'string' ? english({ say: 'hops:at', with: { at: Date.parse(moment) } }) : moment;
  return Object.entries(was).flatMap(([key, value]): readonly (readonly [unknown, unknown])[] => {
    if (key === 'dueWords') return [[value, told(now.due)]];
    if (key === 'nowWords') return [[value, told(now.now)]];
    return momentsIn(value, now[key]);
  });
}

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
  { subject: / · 0 min left: /, why: 'What comes when something is due already reminds nobody of it.' },
];
export const MORE_LETTERS: readonly { readonly subject: RegExp; readonly why: string }[] = [
  { subject: /^We continue: Come on site \(AC-00022\)$/, why: 'Who answered hears that their request goes on.' },
];

// biome-ignore lint/suspicious/noExplicitAny: as answers of this release are read here.
type Body = any;

/** The one deadline that there was, where a plan or a request has that one and no other. */
const single = (plan: Body): Body => {
  const [finish] = plan.deadlines;
  const [before, after] = finish.rings;
  const isAsThen =
    plan.deadlines.length === 1 &&
    finish.key === 'finish' &&
    finish.length.by === 'routing' &&
    finish.rings.length === 2 &&
    JSON.stringify([before.tells, after.tells]) === '[["working"],["leads","working"]]';
  const { calendar, leads } = plan;
  return isAsThen ? { calendar, remindBefore: 0 - before.at, escalateAfter: after.at, escalateTo: leads } : plan;
};

/** Every plan in an answer, wherever it stands. */
const inAll = (value: Body): Body => {
  if (Array.isArray(value)) return value.map(inAll);
  if (typeof value !== 'object' || value === null) return value;
  const all = Object.fromEntries(Object.entries(value).map(([key, each]) => [key, inAll(each)]));
  return Array.isArray(all.deadline?.deadlines) ? { ...all, deadline: single(all.deadline) } : all;
};

/** An answer of today in the shape of then, where only the shape is another: what is due has become a list since. */
export function asThen(call: Call): Call {
  const body = call.body as Body;
  if (call.route === 'sheet' && Array.isArray(body?.deadlines)) {
    const { deadlines, ...others } = body;
    const [one, ...more] = deadlines;
    if (more.length > 0) return call;
    return {
      ...call,
      body: { ...others, fuse: one?.fuse ?? null, due: one?.due ?? null, dueWhy: one?.why ?? [] },
    };
  }
  return { ...call, body: inAll(body) };
}
