import { planDeadline, replanDeadline, type WorkingCalendar, workingTimeBetween } from '../deadline/index.ts';
import type { Promised } from './life.ts';

/** What is likely to become of a promise. */
export interface Outlook {
  readonly id: string;
  readonly key: string;
  /** By when it was to be finished as things stand: what stands still moves on with time. Epoch ms. */
  readonly due: number;
  /** Working time left until then, ms, below zero when it is over; null for a date. */
  readonly left: number | null;
  /** What it is kept by. */
  readonly ends: Promised['ends'];
  /** Whether its time stands still now. */
  readonly isStill: boolean;
  /** Whether that is over. */
  readonly isLate: boolean;
  /** How likely it is late, from 0 to 1; null where it is due beyond what is looked at. */
  readonly chance: number | null;
  /** When one in ten, half and nine in ten runs have finished it, epoch ms; null where that is beyond what is looked at. */
  readonly finish: { readonly early: number | null; readonly likely: number | null; readonly late: number | null };
}

/** What a promise says at a moment. */
export interface Due {
  readonly key: string;
  readonly due: number;
  /** Working time left, ms; null for a date. */
  readonly left: number | null;
  /** Whether that is over. */
  readonly isLate: boolean;
  readonly stands: boolean;
  /** Whether it moves on as long as the request stands still, which it does now. */
  readonly moves: boolean;
}

/** What a promise says at a moment: by when, and how much working time is left. */
export function dueAt(promised: Promised, calendar: WorkingCalendar, now: number): Due {
  const { key, start, span, pauses, stands } = promised;
  const planned = planDeadline(calendar, start, span);
  const { due } = pauses.length > 0 ? replanDeadline({ ...planned, pauses }, calendar) : planned;
  const isDate = 'due' in span;
  const last = pauses.at(-1);
  const since = last && last.to === null ? last.from : now;
  const left = isDate ? null : workingTimeBetween(calendar, since, due);
  const isLate = left === null ? due < now : left < 0;
  return { key, due, left, isLate, stands: stands && !isDate, moves: !isDate && last?.to === null };
}
