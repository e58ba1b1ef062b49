import { Temporal } from 'temporal-polyfill';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import type { WorkingCalendar } from './calendar.ts';

const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

const PLACES: Readonly<Record<string, string>> = {
  name: 'the name',
  zone: 'the time zone',
  week: 'the hours of the week',
};

const rulesOf = (...states: readonly (WorkingCalendar | null)[]): MergeRules => ({
  lists: { holidays: (item) => String(item.date) },
  nameOf: ([place = '', date]) => {
    if (place !== 'holidays') return PLACES[place] ?? 'the calendar';
    const day = states.flatMap((state) => state?.holidays ?? []).find((each) => each.date === date);
    return day ? `the closed day ${day.date}, ${day.name}` : 'the closed days';
  },
});

/** Minutes since midnight of a clock time, `24:00` included; null when it is none. */
function minutesOf(clock: string): number | null {
  const found = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(clock);
  if (clock === '24:00') return 1_440;
  return found ? Number(found[1]) * 60 + Number(found[2]) : null;
}

const isZone = (zone: string): boolean => {
  try {
    Temporal.Instant.fromEpochMilliseconds(0).toZonedDateTimeISO(zone);
    return true;
  } catch {
    return false;
  }
};

const isDate = (text: string): boolean => {
  try {
    return Temporal.PlainDate.from(text, { overflow: 'reject' }).toString() === text;
  } catch {
    return false;
  }
};

function found({ name, zone, week, holidays }: WorkingCalendar): readonly DesignFinding[] {
  const error = (at: string, message: string): DesignFinding => ({ severity: 'error', page: 'calendar', at, message });
  const hours = week.flatMap((day, place): DesignFinding[] => {
    const minutes = day.map(([from, to]) => [minutesOf(from), minutesOf(to)] as const);
    const label = DAYS[place] ?? '';
    if (minutes.some(([from, to]) => from === null || to === null))
      return [error(`week ${place}`, `${label} has a time that is none. Write times like 08:00; a day ends at 24:00.`)];
    const isInOrder = minutes.every(
      ([from, to], index) => (from ?? 0) < (to ?? 0) && (index === 0 || (minutes[index - 1]?.[1] ?? 0) <= (from ?? 0)),
    );
    return isInOrder
      ? []
      : [error(`week ${place}`, `${label}: each stretch has to end after it begins, and begin after the one before.`)];
  });
  const dates = holidays.map(({ date }) => date);
  return [
    ...(name.trim() === '' ? [error('name', 'The calendar has no name.')] : []),
    ...(isZone(zone) ? [] : [error('zone', `“${zone}” is no time zone. Write one like Europe/Dublin.`)]),
    ...hours,
    ...(week.every((day) => day.length === 0) ? [error('week', 'No day is open: nothing would ever be due.')] : []),
    ...dates.flatMap((date, place) =>
      !isDate(date)
        ? [error(`holidays ${date}`, `“${date}” is no day. Write days like 2026-12-24.`)]
        : dates.indexOf(date) === place
          ? []
          : [error(`holidays ${date}`, `${date} stands there twice.`)],
    ),
  ];
}

/** Working calendars as designs. They are in force at once, and move what is open. */
export const CALENDAR: DesignKind<WorkingCalendar> = {
  kind: 'calendar',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, rulesOf(after, before)),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rulesOf(base, theirs, mine)),
  findings: found,
  refersTo: () => [],
};
