import { CalendarDate } from '../calendarTime.ts';
import { type Context, equal, isContext, isList, type Value } from '../value.ts';
import { define } from './builtIn.ts';

/**
 * Functions that are not of the standard: reckoning in working days, membership of people. They
 * stand apart so that they are known as ours.
 */
const own = define('Tolvek’s own');
const COUNT = { kind: 'number', places: 0 } as const;

/** How far working days are searched: about ten years. */
const SEARCH_DAYS = 3_700;

/**
 * Open weekdays (Monday first) and closed dates, as the name `calendar` gives them to an
 * expression.
 */
interface WorkingWeek {
  readonly open: readonly boolean[];
  readonly closed: ReadonlySet<number>;
  readonly opened: ReadonlySet<number>;
}

/** How deep terms are followed. */
const SEARCH_DEPTH = 20;

/** Whether following the parents of a term leads to another. */
function standsUnder(parents: Context, term: string, top: string): boolean {
  let at: Value = term;
  for (let steps = 0; steps < SEARCH_DEPTH && typeof at === 'string' && at !== ''; steps += 1) {
    if (at === top) return true;
    at = Object.hasOwn(parents, at) ? (parents[at] ?? null) : null;
  }
  return false;
}

/** The dates in a list, as days. */
const daysIn = (dates: Value | undefined): ReadonlySet<number> =>
  new Set(
    dates !== undefined && isList(dates)
      ? dates.flatMap((date) => (typeof date === 'string' ? (CalendarDate.read(date)?.day ?? []) : []))
      : [],
  );

const weeks = new WeakMap<object, WorkingWeek>();

function weekOf(calendar: Context): WorkingWeek {
  let week = weeks.get(calendar);
  if (!week) {
    const open = calendar.open ?? null;
    week = {
      open: isList(open) ? open.map((day) => day === true) : [],
      ...{ closed: daysIn(calendar.closed), opened: daysIn(calendar.opened) },
    };
    weeks.set(calendar, week);
  }
  return week;
}

const isWorking = (week: WorkingWeek, date: CalendarDate): boolean =>
  week.opened.has(date.day) || (week.open[date.weekday - 1] === true && !week.closed.has(date.day));

/**
 * The working day so many working days after (or, below zero, before) a date; 0 is the date itself
 * or the next working day.
 */
function addWorkingDays(calendar: Context, from: CalendarDate, count: number): Value {
  const week = weekOf(calendar);
  if (!Number.isInteger(count)) return null;
  const step = count < 0 ? -1 : 1;
  let left = Math.abs(count);
  let date: CalendarDate | null = from;
  if (left === 0 && isWorking(week, from)) return from;
  for (let searched = 0; searched < SEARCH_DAYS; searched += 1) {
    date = date.plusDays(step);
    if (!date) return null;
    if (isWorking(week, date)) left -= 1;
    if (left <= 0 && isWorking(week, date)) return date;
  }
  return null;
}

/**
 * How many working days lie after the first date up to and with the second; below zero when the
 * second is earlier.
 */
function workingDaysBetween(calendar: Context, from: CalendarDate, to: CalendarDate): Value {
  if (to.day < from.day) {
    const back = workingDaysBetween(calendar, to, from);
    return typeof back === 'number' ? 0 - back : null;
  }
  if (to.day - from.day > SEARCH_DAYS) return null;
  const week = weekOf(calendar);
  let count = 0;
  for (let day = from.day + 1; day <= to.day; day += 1) if (isWorking(week, new CalendarDate(day))) count += 1;
  return count;
}

export const OWN_FUNCTIONS = [
  own({
    name: 'add working days',
    needs: 'calendar',
    takes: [
      ['from', 'date'],
      ['days', 'number'],
    ],
    gives: { kind: 'date' },
    examples: [['add working days(date("2026-11-20"), 1)', 'date("2026-11-23")']],
    run: addWorkingDays,
  }),
  own({
    name: 'count working days',
    needs: 'calendar',
    takes: [
      ['from', 'date'],
      ['to', 'date'],
    ],
    gives: COUNT,
    examples: [['count working days(date("2026-11-20"), date("2026-11-24"))', '2']],
    run: workingDaysBetween,
  }),
  own({
    name: 'is member',
    takes: [
      ['person', 'context'],
      ['group', 'text'],
    ],
    gives: { kind: 'yes-no' },
    examples: [],
    run: (person, group) => {
      const groups = person.groups ?? null;
      return isList(groups) ? groups.some((each) => equal(each, group) === true) : null;
    },
  }),
  own({
    name: 'is under',
    needs: 'vocabularies',
    takes: [
      ['term', 'text'],
      ['top', 'text'],
    ],
    gives: { kind: 'yes-no' },
    examples: [
      ['is under("grey_seal", "mammals")', 'true'],
      ['is under("mammals", "grey_seal")', 'false'],
    ],
    run: (vocabularies, term, top) =>
      Object.values(vocabularies).some(
        (parents) => isContext(parents) && Object.hasOwn(parents, top) && standsUnder(parents, term, top),
      ),
  }),
];
