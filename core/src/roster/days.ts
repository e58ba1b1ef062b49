import { dateAt, dayBegins, periodAt, within } from '../deadline/index.ts';

/** A day in a zone, and what of some stretches (epoch ms) is on it. */
export interface DayOf<Of> {
  /** `YYYY-MM-DD`. */
  readonly day: string;
  readonly parts: readonly {
    readonly of: Of;
    readonly from: number;
    readonly to: number;
    /** Whether it is all of the day. */
    readonly isWhole: boolean;
  }[];
}

/** The weeks from that of a moment (epoch ms) on, Monday first (ISO 8601), each day with what is on it in the order it begins. */
export function weeksFrom<Of extends { readonly from: number; readonly to: number }>(
  all: readonly Of[],
  { at, zone, weeks }: { readonly at: number; readonly zone: string; readonly weeks: number },
): readonly (readonly DayOf<Of>[])[] {
  const monday = periodAt('week', at, zone).from;
  return Array.from({ length: weeks }, (_, week) =>
    Array.from({ length: 7 }, (__, place) => {
      const later = week * 7 + place;
      const whole = { from: dayBegins(monday, zone, later), to: dayBegins(monday, zone, later + 1) };
      const parts = all
        .flatMap((of) => within(of, whole).map((part) => ({ of, ...part })))
        .sort((a, b) => a.from - b.from || a.to - b.to)
        .map((part) => ({ ...part, isWhole: part.from === whole.from && part.to === whole.to }));
      return { day: dateAt(whole.from, zone), parts };
    }),
  );
}
