import { CalendarDate, ClockTime, DateTime, Duration, MONTHS, Months, WEEKDAYS } from '../calendarTime.ts';
import { define } from './builtIn.ts';

const times = define('Dates and times');
const TEXT = { kind: 'text' } as const;
const COUNT = { kind: 'number', places: 0 } as const;

const dateOf = (value: CalendarDate | DateTime): CalendarDate => (value instanceof DateTime ? value.date : value);

/** The week of the year by ISO 8601: the week with the year's first Thursday is week 1. */
function weekOf(date: CalendarDate): number {
  const thursday = date.day + 4 - date.weekday;
  const first = CalendarDate.of(new CalendarDate(thursday).year, 1, 1)?.day ?? thursday;
  return Math.floor((thursday - first) / 7) + 1;
}

/** Whole months from one day to another, counted towards zero. */
function monthsBetween(from: CalendarDate, to: CalendarDate): number {
  if (to.day < from.day) return 0 - monthsBetween(to, from);
  const months = (to.year - from.year) * 12 + to.month - from.month;
  return to.dayOfMonth < from.dayOfMonth ? months - 1 : months;
}

export const TIME_FUNCTIONS = [
  times({
    name: 'date',
    takes: [
      ['from', ['text', 'date', 'date-time', 'number']],
      ['month?', 'number'],
      ['day?', 'number'],
    ],
    gives: { kind: 'date' },
    examples: [
      ['date("2026-11-23")', '@"2026-11-23"'],
      ['date(2026, 2, 29)', 'null'],
    ],
    run: (from, month, day) => {
      if (typeof from === 'number')
        return month === undefined || day === undefined ? null : CalendarDate.of(from, month, day);
      if (month !== undefined) return null;
      return typeof from === 'string' ? CalendarDate.read(from) : dateOf(from);
    },
  }),
  times({
    name: 'time',
    takes: [
      ['from', ['text', 'time', 'date-time', 'number']],
      ['minute?', 'number'],
      ['second?', 'number'],
    ],
    gives: { kind: 'time' },
    examples: [['time("10:42:00")', '@"10:42:00"']],
    run: (from, minute, second) => {
      if (typeof from === 'number')
        return minute === undefined || second === undefined ? null : ClockTime.of(from, minute, second);
      if (minute !== undefined) return null;
      if (typeof from === 'string') return ClockTime.read(from);
      return from instanceof DateTime ? from.time : from;
    },
  }),
  times({
    name: 'date and time',
    takes: [
      ['from', ['text', 'date', 'date-time']],
      ['time?', 'time'],
    ],
    gives: { kind: 'date-time' },
    examples: [['date and time(date("2026-11-23"), time("10:42:00"))', '@"2026-11-23T10:42:00"']],
    run: (from, time) => {
      if (typeof from === 'string') return time ? null : (DateTime.read(from) ?? midnight(CalendarDate.read(from)));
      return time ? DateTime.of(dateOf(from), time) : null;
    },
  }),
  times({
    name: 'duration',
    takes: [['text', 'text']],
    gives: () => null,
    examples: [['duration("PT90M")', '@"PT1H30M"']],
    run: (text) => Months.read(text) ?? Duration.read(text),
  }),
  times({
    name: 'years and months duration',
    takes: [
      ['from', ['date', 'date-time']],
      ['to', ['date', 'date-time']],
    ],
    gives: { kind: 'months' },
    examples: [['years and months duration(date("2026-01-31"), date("2026-03-01"))', '@"P1M"']],
    run: (from, to) => new Months(monthsBetween(dateOf(from), dateOf(to))),
  }),
  times({
    name: 'day of week',
    takes: [['date', ['date', 'date-time']]],
    gives: TEXT,
    examples: [['day of week(date("2026-11-23"))', '"Monday"']],
    run: (date) => WEEKDAYS[dateOf(date).weekday - 1] ?? null,
  }),
  times({
    name: 'month of year',
    takes: [['date', ['date', 'date-time']]],
    gives: TEXT,
    examples: [['month of year(date("2026-11-23"))', '"November"']],
    run: (date) => MONTHS[dateOf(date).month - 1] ?? null,
  }),
  times({
    name: 'day of year',
    takes: [['date', ['date', 'date-time']]],
    gives: COUNT,
    examples: [['day of year(date("2026-02-01"))', '32']],
    run: (date) => dateOf(date).day - (CalendarDate.of(dateOf(date).year, 1, 1)?.day ?? 0) + 1,
  }),
  times({
    name: 'week of year',
    takes: [['date', ['date', 'date-time']]],
    gives: COUNT,
    examples: [['week of year(date("2027-01-01"))', '53']],
    run: (date) => weekOf(dateOf(date)),
  }),
];

const midnight = (date: CalendarDate | null): DateTime | null => date && DateTime.of(date, new ClockTime(0));
