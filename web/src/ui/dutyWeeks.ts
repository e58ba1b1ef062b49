import { wallClockAt } from '@tolvek/core/deadline';
import { weeksFrom } from '@tolvek/core/roster';
import type { ReactNode } from 'react';
import type { WeekDay, WeekLine } from './WeekPicture.tsx';

/** Something of a roster that is drawn into its weeks: moments are epoch ms. */
export interface DutyItem {
  readonly key: string;
  readonly from: number;
  readonly to: number;
  readonly look: WeekLine['look'];
  /** What stands on a day; `time`: when of that day. */
  readonly words: (time: string) => ReactNode;
}

interface Drawing {
  /** Epoch ms. */
  readonly now: number;
  readonly zone: string;
  readonly weeks: number;
  readonly allDay: string;
  /** What a day (ISO 8601) is called. */
  readonly nameDay: (day: string) => string;
}

/** From when to when (epoch ms), as the clock of a zone shows it, and whether that is one day. */
export function spanOn(from: number, to: number, zone: string): { from: string; to: string; isOneDay: boolean } {
  const [begins, ends] = [wallClockAt(from, zone), wallClockAt(to, zone)];
  return { from: begins, to: ends, isOneDay: begins.slice(0, 10) === ends.slice(0, 10) };
}

/** From when to when on the clock of a zone: `08:00–18:00`, the end of a day as 24:00. */
function timesOf(from: number, to: number, zone: string): string {
  const clock = (moment: number): string => wallClockAt(moment, zone).slice(11);
  const end = clock(to);
  return `${clock(from)}–${end === '00:00' ? '24:00' : end}`;
}

/** The weeks from that of today on, with what is on each day. */
export function dutyWeeks(
  items: readonly DutyItem[],
  { now, zone, weeks, allDay, nameDay }: Drawing,
): readonly (readonly WeekDay[])[] {
  const today = wallClockAt(now, zone).slice(0, 10);
  return weeksFrom(items, { at: now, zone, weeks }).map((days) =>
    days.map(({ day, parts }) => ({
      ...{ key: day, name: nameDay(day), isToday: day === today, isOver: day < today },
      lines: parts.map(({ of, from, to, isWhole }) => ({
        ...{ key: `${of.key} ${from}`, look: of.look, words: of.words(isWhole ? allDay : timesOf(from, to, zone)) },
      })),
    })),
  );
}
