import { Temporal } from 'temporal-polyfill';

/** What somebody has to be able to do. */
export interface SkillAsked {
  /** The key of the skill. */
  readonly skill: string;
  /** The level that is enough, as the desk’s register counts levels. */
  readonly least: number;
  /** Within how many months of today it was checked last; however long ago when nothing is said. */
  readonly months?: number | undefined;
}

/** A skill of somebody, as the register has it. */
export interface SkillHeld {
  readonly skill: string;
  /** Null where no level is kept. */
  readonly level: number | null;
  /** The day it was checked last, `YYYY-MM-DD`; null for never, or where that is not kept. */
  readonly checked: string | null;
}

/** Whether something was checked within so many months of today; on the same day of that month it still was. */
export function isFresh(checked: string | null, months: number, today: string): boolean {
  if (checked === null) return false;
  const since = Temporal.PlainDate.from(today).subtract({ months });
  return Temporal.PlainDate.compare(checked, since) >= 0;
}

/**
 * Whether somebody can do what is asked, of all that the register has of them. What has no level is enough for any; where
 * one was checked long ago, another entry of the same skill may count.
 */
export const canDo = (held: readonly SkillHeld[], { skill, least, months }: SkillAsked, today: string): boolean =>
  held.some(
    (each) =>
      each.skill === skill &&
      (each.level === null || each.level >= least) &&
      (months === undefined || isFresh(each.checked, months, today)),
  );
