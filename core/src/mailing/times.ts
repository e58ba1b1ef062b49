import {
  addWorkingTime,
  dateAt,
  dayBegins,
  endOfWorkingDay,
  NeverOpen,
  periodAt,
  planDeadline,
  subtractWorkingTime,
  type WorkingCalendar,
} from '../deadline/index.ts';
import type { MailingDesign, When } from './mailing.ts';

/** The first moment (epoch ms) at which somebody works from a day (ISO 8601) on; its beginning where nobody ever does. */
function morningOf(calendar: WorkingCalendar, day: string, later = 0): number {
  const begins = dayBegins(day, calendar.zone, later);
  try {
    return addWorkingTime(calendar, begins, 0);
  } catch (error) {
    if (error instanceof NeverOpen) return begins;
    throw error;
  }
}

/** When something goes out again after a moment (epoch ms), and the day its period begins (ISO 8601); null: never by itself. */
export function nextGoing(
  when: When,
  after: number,
  calendar: WorkingCalendar,
): { readonly at: number; readonly period: string } | null {
  if (when.is !== 'every') return null;
  const period = periodAt(when.period, after, calendar.zone).next;
  return { at: morningOf(calendar, period), period };
}

/** When a form goes out that is asked some days after a request came to a stage at `reached`; all moments are epoch ms. */
export const goesAfter = ({ days }: { readonly days: number }, reached: number, calendar: WorkingCalendar): number =>
  days === 0 ? reached : Math.max(reached, morningOf(calendar, dateAt(reached, calendar.zone), days));

/**
 * When a form that goes out at a moment is due, epoch ms; null: on no day. `period`: the day its period began, ISO
 * 8601. With no number of days it is due when the last working day of its period ends.
 */
export function dueOf(
  { dueIn, when }: Pick<MailingDesign, 'dueIn' | 'when'>,
  sent: number,
  calendar: WorkingCalendar,
  period: string | null,
): number | null {
  try {
    if (dueIn !== null) return planDeadline(calendar, sent, dueIn).due;
    if (when.is !== 'every' || period === null) return null;
    const { next } = periodAt(when.period, dayBegins(period, calendar.zone), calendar.zone);
    const last = subtractWorkingTime(calendar, dayBegins(next, calendar.zone), 0);
    // A period in which nobody works has no working day to end with.
    return last > sent ? last : endOfWorkingDay(calendar, sent, 0);
  } catch (error) {
    if (error instanceof NeverOpen) return null;
    throw error;
  }
}

/** When whoever has not answered is reminded next, after a moment; all of them epoch ms. Null: not again. */
export function nextReminder(
  { reminders }: Pick<MailingDesign, 'reminders'>,
  due: number | null,
  after: number,
  calendar: WorkingCalendar,
): number | null {
  if (due === null) return null;
  const day = dateAt(due, calendar.zone);
  const moments = reminders
    .map(({ days, side }) => morningOf(calendar, day, side === 'before' ? -days : days))
    .filter((at) => at > after);
  return moments.length === 0 ? null : Math.min(...moments);
}

/** How an owed form stands. */
export type OwedState = 'open' | 'done' | 'passed' | 'ended';

/** Whether one that is open is late, at a moment; epoch ms. */
export const isLate = (state: OwedState, due: number | null, now: number): boolean =>
  state === 'open' && due !== null && now > due;
