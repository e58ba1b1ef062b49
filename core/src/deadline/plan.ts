import { conditionOf, namesIn } from '../expression/index.ts';
import type { Holder } from '../people/index.ts';
import type { Priority } from '../register/index.ts';

/** How a form keeps time: by which hours, who hears of delays, and what a request is due by. */
export interface DeadlinePlan {
  /** Key of the working calendar of the form: the zone it lives in, and what its deadlines count by unless they say otherwise. */
  readonly calendar: string;
  /** Key of the group that hears of delays. */
  readonly leads: string;
  /** In the order in which they are shown; keys are their own. */
  readonly deadlines: readonly DeadlineRule[];
}

/** What is called the finish; other deadlines have keys of their own. */
export const FINISH = 'finish';

/** The most working days that can be promised: about a year of them. */
export const MOST_WORKING_DAYS = 250;
/** So many a form can have. */
export const MOST_DEADLINES = 12;
/** So many rings one of them can have. */
export const MOST_RINGS = 8;

/** One promise: when it begins and ends, how long it is, what happens on the way. */
export interface DeadlineRule {
  /** Lasting name: what is stored of it is found by this. */
  readonly key: string;
  /** What it is called where people work; the finish is called by itself when empty. */
  readonly name: string;
  /** FEEL over the fields, `requester`, `door`, `today` and `now`: there only while it holds; always when nothing is said. */
  readonly when?: string | undefined;
  /** Another working calendar than the form’s, by key. */
  readonly calendar?: string | undefined;
  readonly begins: DeadlineBegin;
  readonly length: DeadlineLength;
  /** Where its time stands still. A date does not move, whatever is said. */
  readonly stands: DeadlineStand;
  /** What it is kept by; with the request it ends in any case. */
  readonly ends: DeadlineEnd;
  readonly rings: readonly Ring[];
}

/** `stages`: whenever the request comes to one of them, anew each time. */
export type DeadlineBegin = { readonly on: 'arrival' } | { readonly on: 'stages'; readonly stages: readonly string[] };

/**
 * How long: as many working days as the row of the routing table allows, a number of them, or a length of working time
 * (ms). `formula`: FEEL that gives a number of working days or hours. `field`: the date in a field of the request, days
 * before (negative) or after it, counted as working days or as any.
 */
export type DeadlineLength =
  | { readonly by: 'routing' }
  | { readonly by: 'days'; readonly days: number }
  | { readonly by: 'time'; readonly time: number }
  | { readonly by: 'formula'; readonly formula: string; readonly unit: 'days' | 'hours' }
  | { readonly by: 'field'; readonly field: string; readonly days: number; readonly counted: 'working' | 'any' };

/** `paused`: in every stage whose phase that is. */
export type DeadlineStand =
  | { readonly on: 'paused' }
  | { readonly on: 'never' }
  | { readonly on: 'stages'; readonly stages: readonly string[] };

/** How long a row of the routing table can say that something is. */
export type RowSpan = Extract<DeadlineLength, { readonly by: 'days' | 'time' | 'formula' }>;

/**
 * What a row of the routing table says of a deadline besides the finish, in place of how long that is by itself. `length` null:
 * what the row takes does not have it.
 */
export interface RowLength {
  /** Key of the deadline. */
  readonly deadline: string;
  readonly length: RowSpan | null;
}

/** A deadline as it is for what a row takes; null where that does not have it. */
export function ruleByRow(rule: DeadlineRule, lengths: readonly RowLength[] = []): DeadlineRule | null {
  const said = lengths.find(({ deadline }) => deadline === rule.key);
  if (!said || rule.key === FINISH) return rule;
  return said.length && { ...rule, length: said.length };
}

/**
 * `finished`: only with the request. `answered`: the first message of the desk to whoever asked. `left`: the stages it
 * began in are left. `stages`: one of them is reached.
 */
export type DeadlineEnd =
  | { readonly on: 'finished' | 'answered' | 'left' }
  | { readonly on: 'stages'; readonly stages: readonly string[] };

/** What happens at a moment around the due one. */
export interface Ring {
  /** Lasting name within its deadline: what rang once does not ring again. */
  readonly key: string;
  /** ms of working time from when it is due; negative: before. */
  readonly at: number;
  /**
   * In the place of that: when the calendar opens on the working day so many after the day it is due on; negative: before; 0: on
   * that day itself.
   */
  readonly days?: number | undefined;
  /** Rings again after so much working time (ms), as long as the deadline is open; once when nothing is said. */
  readonly again?: number | undefined;
  readonly tells: readonly Hearer[];
  /** What is done besides, in this order. */
  readonly does: readonly RingAct[];
}

/**
 * Who is told. `working`: the handler, or the team while there is none; while it is decided, whoever has still to decide.
 * `leads`: those who hear of delays of the form. `field`: whoever is named in a field for a person. `duty`:
 * whoever is on duty by a roster when it goes.
 */
export type Hearer =
  | ('working' | 'team' | 'leads' | 'requester' | 'deciding')
  | Holder
  | { readonly field: string }
  | { readonly duty: string };

/** `stage` moves it where a move leads there whose conditions hold; `decide` has it decided by a path, where it is not being decided. */
export type RingAct =
  | { readonly do: 'priority'; readonly to: Priority }
  | { readonly do: 'team'; readonly team: string }
  | { readonly do: 'stage'; readonly stage: string }
  | { readonly do: 'decide'; readonly path: string };

/** Whether something rings before it is due; on the morning of that day as well. */
export const ringsBefore = ({ at, days }: Pick<Ring, 'at' | 'days'>): boolean =>
  days === undefined ? at < 0 : days <= 0;

/** Keys of the rings that every form has had from the start. */
export const REMINDER = 'reminder';
export const ESCALATION = 'escalation';

/** The finish as forms have it from the start: reminded before, the leads told after; both ms of working time. */
export const finishRule = (remindBefore: number, escalateAfter: number): DeadlineRule => ({
  ...{ key: FINISH, name: '', begins: { on: 'arrival' }, length: { by: 'routing' }, stands: { on: 'paused' } },
  ends: { on: 'finished' },
  rings: [
    { key: REMINDER, at: 0 - remindBefore, tells: ['working'], does: [] },
    { key: ESCALATION, at: escalateAfter, tells: ['leads', 'working'], does: [] },
  ],
});

/** The calendar that a deadline counts by, by key. */
export const calendarFor = (plan: Pick<DeadlinePlan, 'calendar'>, rule: Pick<DeadlineRule, 'calendar'>): string =>
  rule.calendar ?? plan.calendar;

/** All calendars of a plan, by key, the form’s first. */
export const calendarsOf = (plan: DeadlinePlan): readonly string[] => [
  ...new Set([plan.calendar, ...plan.deadlines.map((rule) => calendarFor(plan, rule))]),
];

/** The rule of a deadline by its key. */
export const ruleOf = ({ deadlines }: DeadlinePlan, key: string): DeadlineRule | undefined =>
  deadlines.find((rule) => rule.key === key);

/** Whether what a row says of a deadline hangs on what a request holds. */
export const rowHangs = ({ length }: RowLength): boolean => length?.by === 'formula';

/** Whether a deadline hangs on what a request holds. */
export const hangsOn = (rule: DeadlineRule): boolean =>
  conditionOf(rule) !== null || rule.length.by === 'formula' || rule.length.by === 'field';

/**
 * What of the clock alone can make a deadline apply, or not any more: its day, any moment, or nothing. How long it is stays as
 * it was when it began.
 */
export function turnsWith(rule: Pick<DeadlineRule, 'when'>): 'day' | 'moment' | null {
  const names = namesIn(conditionOf(rule) ?? '');
  return names.includes('now') ? 'moment' : names.includes('today') ? 'day' : null;
}

/** All texts in FEEL of a plan. */
export const formulasIn = ({ deadlines }: DeadlinePlan): readonly string[] =>
  deadlines.flatMap((rule) => [
    ...[conditionOf(rule) ?? []].flat(),
    ...(rule.length.by === 'formula' ? [rule.length.formula] : []),
  ]);

/** A length whose formula, if it has one, is changed. */
const withFormula = <Length extends DeadlineLength>(length: Length, change: (text: string) => string): Length =>
  length.by === 'formula' ? { ...length, formula: change(length.formula) } : length;

/** A plan whose texts in FEEL are changed. */
export const withFormulas = (plan: DeadlinePlan, change: (text: string) => string): DeadlinePlan => ({
  ...plan,
  deadlines: plan.deadlines.map(({ when, length, ...rule }) => ({
    ...rule,
    ...(when === undefined ? {} : { when: change(when) }),
    length: withFormula(length, change),
  })),
});

/** What rows say of deadlines, with their formulas changed. */
export const withLengthFormulas = (
  lengths: readonly RowLength[],
  change: (text: string) => string,
): readonly RowLength[] =>
  lengths.map(({ deadline, length }) => ({
    deadline,
    length: length && withFormula(length, change),
  }));

/** The keys of the groups that a plan names: who hears of delays, who is told, who works on it later. */
export const groupsOfDeadlines = ({ leads, deadlines }: DeadlinePlan): readonly string[] => [
  leads,
  ...deadlines.flatMap(({ rings }) =>
    rings.flatMap(({ tells, does }) => [
      ...tells.flatMap((hearer) => (typeof hearer === 'object' && 'group' in hearer ? [hearer.group] : [])),
      ...does.flatMap((act) => (act.do === 'team' ? [act.team] : [])),
    ]),
  ),
];

/** The rosters of whose people on duty a plan tells, by key. */
export const rostersOfDeadlines = ({ deadlines }: Pick<DeadlinePlan, 'deadlines'>): readonly string[] =>
  deadlines.flatMap(({ rings }) =>
    rings.flatMap(({ tells }) =>
      tells.flatMap((hearer) => (typeof hearer === 'object' && 'duty' in hearer ? [hearer.duty] : [])),
    ),
  );

/** The keys of the fields that a plan reads as they are: dates, and who is named in them. */
export const fieldsOfDeadlines = ({ deadlines }: Pick<DeadlinePlan, 'deadlines'>): readonly string[] =>
  deadlines.flatMap(({ length, rings }) => [
    ...(length.by === 'field' ? [length.field] : []),
    ...rings.flatMap(({ tells }) =>
      tells.flatMap((hearer) => (typeof hearer === 'object' && 'field' in hearer ? [hearer.field] : [])),
    ),
  ]);

/** A plan with other groups and calendars in the place of its own. */
export const deadlinesIn = (
  plan: DeadlinePlan,
  there: { readonly group: (key: string) => string; readonly calendar: (key: string) => string },
): DeadlinePlan => ({
  ...{ calendar: there.calendar(plan.calendar), leads: there.group(plan.leads) },
  deadlines: plan.deadlines.map(({ calendar, ...rule }) => ({
    ...rule,
    ...(calendar === undefined ? {} : { calendar: there.calendar(calendar) }),
    rings: rule.rings.map((ring) => ({
      ...ring,
      tells: ring.tells.map((hearer) =>
        typeof hearer === 'object' && 'group' in hearer ? { group: there.group(hearer.group) } : hearer,
      ),
      does: ring.does.map((act) => (act.do === 'team' ? { ...act, team: there.group(act.team) } : act)),
    })),
  })),
});
