import { type Said, said, type Words } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import type { OpenHours, WorkingCalendar } from './calendar.ts';
import { isDate, isZone } from './wallClock.ts';

const DAYS = (['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const).map((day) =>
  said(`calendars:${day}`),
);

const PLACES: Readonly<Record<string, Said>> = {
  name: said('calendars:theName'),
  zone: said('calendars:theZone'),
  week: said('calendars:theHours'),
  retired: said('calendars:isRetired'),
};

const rulesOf = (...states: readonly (WorkingCalendar | null)[]): MergeRules => ({
  lists: { holidays: (item) => String(item.date) },
  nameOf: ([place = '', date]) => {
    if (place !== 'holidays') return PLACES[place] ?? said('calendars:theCalendar');
    const day = states.flatMap((state) => state?.holidays ?? []).find((each) => each.date === date);
    return day ? said('calendars:closedDay', { day: day.date, name: day.name }) : said('calendars:closedDays');
  },
});

/** Minutes since midnight of a clock time, `24:00` included; null when it is none. */
function minutesOf(clock: string): number | null {
  const found = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(clock);
  if (clock === '24:00') return 1_440;
  return found ? Number(found[1]) * 60 + Number(found[2]) : null;
}

/** The hours of a day that are no times, or not one after the other. */
function wrongHours(at: string, weekday: Words, day: readonly OpenHours[]): readonly DesignFinding[] {
  const error = (message: Said): DesignFinding => ({ severity: 'error', page: 'calendar', at, message });
  const minutes = day.map(([from, to]) => [minutesOf(from), minutesOf(to)] as const);
  if (minutes.some(([from, to]) => from === null || to === null))
    return [error(said('calendars:badTime', { weekday }))];
  const isInOrder = minutes.every(
    ([from, to], index) => (from ?? 0) < (to ?? 0) && (index === 0 || (minutes[index - 1]?.[1] ?? 0) <= (from ?? 0)),
  );
  return isInOrder ? [] : [error(said('calendars:badOrder', { weekday }))];
}

function found({ name, zone, week, holidays }: WorkingCalendar): readonly DesignFinding[] {
  const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'calendar', at, message });
  const hours = [
    ...week.flatMap((day, place) => wrongHours(`week ${place}`, DAYS[place] ?? '', day)),
    ...holidays.flatMap(({ date, hours: own = [] }) =>
      wrongHours(`holidays ${date}`, said('calendars:onDay', { day: date }), own),
    ),
  ];
  const dates = holidays.map(({ date }) => date);
  return [
    ...(name.trim() === '' ? [error('name', said('calendars:noName'))] : []),
    ...(isZone(zone) ? [] : [error('zone', said('calendars:badZone', { zone }))]),
    ...hours,
    ...(week.every((day) => day.length === 0) ? [error('week', said('calendars:neverOpen'))] : []),
    ...dates.flatMap((date, place) =>
      !isDate(date)
        ? [error(`holidays ${date}`, said('calendars:badDay', { typed: date }))]
        : dates.indexOf(date) === place
          ? []
          : [error(`holidays ${date}`, said('calendars:dayTwice', { day: date }))],
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
