/** Who is on duty when: shifts that come again every week, and what was swapped of them. */
export interface Roster {
  readonly key: string;
  readonly name: string;
  /** IANA zone, such as `Europe/Dublin`: every clock time of the roster is one there. */
  readonly zone: string;
  /** Key of the working calendar whose closed days a shift may skip, and whose hours may have to be covered. */
  readonly calendar: string;
  /** When somebody has to be on duty: while the calendar is open, always, or whenever it happens. */
  readonly needed: Needed;
  readonly shifts: readonly Shift[];
  /** One after the other: each is read of what those before it left. */
  readonly swaps: readonly Swap[];
  /** Whether those on it work while they are on duty, and at no other time. */
  readonly onlyOnDuty?: boolean | undefined;
  /** What passes to whoever comes on duty of what was given by the roster to those who are no longer: nothing when nothing is said. */
  readonly handsOver?: HandsOver | undefined;
  /** Whether whoever comes on duty gets an email that they do. */
  readonly tells?: boolean | undefined;
  /** Offered nowhere any more. */
  readonly retired?: boolean | undefined;
}

/** `waiting`: what nobody has begun to work on. `open`: all that is not finished. */
export const HANDS_OVER = ['waiting', 'open'] as const;
export type HandsOver = (typeof HANDS_OVER)[number];

export const NEEDED = ['open', 'always', 'never'] as const;
export type Needed = (typeof NEEDED)[number];

/** So many a roster can have; swaps that are over can be taken out. */
export const MOST_SHIFTS = 60;
export const MOST_IN_TURN = 60;
export const MOST_SWAPS = 2_000;

/** A stretch of the days of a week that somebody has, people in turn. */
export interface Shift {
  readonly id: string;
  /** What it is called; nothing where the roster has but one. */
  readonly name: string;
  /** Weekdays on which it begins, 1 (Monday, ISO 8601) to 7. */
  readonly days: readonly number[];
  /** `HH:MM`. Where it ends no later than it begins, it ends on the next day; `24:00` is the end of a day. */
  readonly from: string;
  readonly to: string;
  /** Ids of those who have it in turn. */
  readonly people: readonly string[];
  /** When it passes to the next one: after so many weeks, or so many times. */
  readonly passes: { readonly every: number; readonly of: 'weeks' | 'times' };
  /** The day (`YYYY-MM-DD`) on which the first one begins. Weeks are counted from it, so that it passes on its weekday. */
  readonly since: string;
  /** The last day on which it begins; for good when nothing is said. */
  readonly until?: string | undefined;
  /** Whether it falls away on days that the calendar has closed though their weekday is open. */
  readonly skipsClosed?: boolean | undefined;
}

/** Somebody in the place of somebody else for a while: a swap, a gap that is wanted, or more people than usual. */
export interface Swap {
  readonly id: string;
  /** From and until when, as the clock of the roster shows it: `2026-11-23T08:00`. */
  readonly from: string;
  readonly until: string;
  /** Who is on duty then otherwise; nobody where `by` comes besides. */
  readonly instead: string | null;
  /** Who is on duty then; nobody where `instead` has no one in their place. */
  readonly by: string | null;
  /** Why; others read it. */
  readonly note: string;
}

/** Somebody is on duty from one moment to another (epoch ms), the end not included. */
export interface Duty {
  readonly person: string;
  readonly from: number;
  readonly to: number;
}
