import ICAL from 'ical.js';
import type { CalendarDraft, SpecialDay, Week } from './calendarDraft.ts';
import { WEEKDAYS } from './calendarDraft.ts';

/** Weekdays as iCalendar names them (RFC 5545, 3.3.10), Monday first. */
const BYDAY = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;
const PLACE_OF: ReadonlyMap<string, number> = new Map(BYDAY.map((weekday, place) => [weekday, place]));
/** A Monday from which the hours of every week are told. */
const FIRST_MONDAY = '2024-01-01';
const DAY = 86_400_000;

const dayAfter = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * DAY).toISOString().slice(0, 10);
const dateOf = (day: string): ICAL.Time => ICAL.Time.fromDateString(day);
/** A clock time on a day; `24:00` is the beginning of the next. */
const timeOf = (day: string, clock: string): ICAL.Time =>
  clock === '24:00'
    ? ICAL.Time.fromDateTimeString(`${dayAfter(day, 1)}T00:00:00`)
    : ICAL.Time.fromDateTimeString(`${day}T${clock}:00`);

interface Told {
  readonly uid: string;
  readonly summary: string;
  readonly from: ICAL.Time;
  readonly to: ICAL.Time;
  readonly zone?: string;
  readonly weekday?: string;
}

function event({ uid, summary, from, to, zone, weekday }: Told): ICAL.Component {
  const made = new ICAL.Component('vevent');
  made.updatePropertyWithValue('uid', uid);
  made.updatePropertyWithValue('dtstamp', ICAL.Time.fromDateTimeString(`${FIRST_MONDAY}T00:00:00Z`));
  made.updatePropertyWithValue('summary', summary);
  for (const [name, at] of [
    ['dtstart', from],
    ['dtend', to],
  ] as const) {
    const property = made.updatePropertyWithValue(name, at);
    if (zone) property.setParameter('tzid', zone);
  }
  if (weekday) made.updatePropertyWithValue('rrule', ICAL.Recur.fromData({ freq: 'WEEKLY', byday: [weekday] }));
  return made;
}

/**
 * A working calendar as iCalendar (RFC 5545): the hours of a week as events of every week, closed days as
 * events of a whole day, days with hours of their own as events on that day.
 */
export function asICalendar({ name, zone, week, holidays }: CalendarDraft): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('prodid', '-//Tolvek//Working calendar//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('x-wr-calname', name);
  calendar.updatePropertyWithValue('x-wr-timezone', zone);
  const add = (told: Told): void => void calendar.addSubcomponent(event(told));
  week.forEach((hours, place) => {
    const day = dayAfter(FIRST_MONDAY, place);
    for (const [from, to] of hours) {
      const told = { from: timeOf(day, from), to: timeOf(day, to), zone, weekday: BYDAY[place] ?? 'MO' };
      add({ uid: `${WEEKDAYS[place]}-${from}@tolvek`, summary: name, ...told });
    }
  });
  for (const { date, name: summary, hours = [] } of holidays) {
    if (hours.length === 0) add({ uid: `${date}@tolvek`, summary, from: dateOf(date), to: dateOf(dayAfter(date, 1)) });
    for (const [from, to] of hours)
      add({ uid: `${date}-${from}@tolvek`, summary, from: timeOf(date, from), to: timeOf(date, to), zone });
  }
  return calendar.toString();
}

/** What an iCalendar file says of a working calendar; null where it says nothing of it. */
export interface Read {
  readonly name: string | null;
  readonly zone: string | null;
  readonly week: Week | null;
  readonly days: readonly SpecialDay[];
}

/** Days that one event of several days, or one of every year, becomes at most. */
const MOST_DAYS = 60;

const clockOf = (time: ICAL.Time): string =>
  `${String(time.hour).padStart(2, '0')}:${String(time.minute).padStart(2, '0')}`;
const dayOf = (time: ICAL.Time): string => time.toString().slice(0, 10);
/** The end of hours on the day they begin: midnight is the end of that day. */
const endClock = (from: ICAL.Time, to: ICAL.Time): string => (dayOf(to) === dayOf(from) ? clockOf(to) : '24:00');

/** How an event comes again; null when it comes once. */
function ruleOf(component: ICAL.Component): ICAL.Recur | null {
  const rule = component.getFirstPropertyValue('rrule');
  return rule instanceof ICAL.Recur ? rule : null;
}

/** The whole days of an event, its end not included; of one that comes every year, those of some years from the first. */
function wholeDays(one: ICAL.Event, years: readonly number[]): readonly string[] {
  const first = dayOf(one.startDate);
  const length = Math.max(1, Math.round((Date.parse(dayOf(one.endDate)) - Date.parse(first)) / DAY));
  const starts =
    ruleOf(one.component)?.freq === 'YEARLY'
      ? years.map((year) => `${year}${first.slice(4)}`).filter((day) => day >= first)
      : [first];
  return starts
    .flatMap((start) => Array.from({ length: Math.min(length, MOST_DAYS) }, (_, n) => dayAfter(start, n)))
    .filter((day) => !Number.isNaN(Date.parse(day)));
}

/**
 * Reads a working calendar from iCalendar: whole days are closed days, events of every week are the hours of
 * the week, other events of some hours are days with hours of their own. `years`: those for which events
 * of every year are read.
 *
 * @throws Error for a text that is no iCalendar.
 */
export function fromICalendar(text: string, years: readonly number[]): Read {
  const calendar = new ICAL.Component(ICAL.parse(text));
  const week: [string, string][][] = WEEKDAYS.map(() => []);
  const days = new Map<string, { name: string; hours: [string, string][] }>();
  const zones: string[] = [];
  for (const component of calendar.getAllSubcomponents('vevent')) {
    const one = new ICAL.Event(component);
    const name = one.summary ?? '';
    if (one.startDate.isDate) {
      for (const day of wholeDays(one, years)) days.set(day, { name, hours: [] });
      continue;
    }
    const zone = component.getFirstProperty('dtstart')?.getParameter('tzid');
    if (typeof zone === 'string') zones.push(zone);
    const hours: [string, string] = [clockOf(one.startDate), endClock(one.startDate, one.endDate)];
    const rule = ruleOf(component);
    if (rule?.freq === 'WEEKLY') {
      const named: readonly string[] = ((rule.parts as { BYDAY?: readonly string[] }).BYDAY ?? []).map((each) =>
        each.slice(-2),
      );
      const own = BYDAY[(one.startDate.dayOfWeek() + 5) % 7] ?? 'MO';
      for (const weekday of named.length > 0 ? named : [own]) week[PLACE_OF.get(weekday) ?? -1]?.push(hours);
    } else {
      const day = dayOf(one.startDate);
      days.set(day, { name, hours: [...(days.get(day)?.hours ?? []), hours] });
    }
  }
  const text_ = (property: string): string | null => {
    const value = calendar.getFirstPropertyValue(property);
    return typeof value === 'string' && value !== '' ? value : null;
  };
  const inOrder = (hours: [string, string][]): [string, string][] => hours.sort(([a], [b]) => (a < b ? -1 : 1));
  return {
    name: text_('x-wr-calname'),
    zone: text_('x-wr-timezone') ?? zones[0] ?? null,
    week: week.some((hours) => hours.length > 0) ? (week.map(inOrder) as unknown as Week) : null,
    days: [...days]
      .map(([date, { name, hours }]) => ({ date, name, ...(hours.length > 0 ? { hours: inOrder(hours) } : {}) }))
      .sort((a, b) => (a.date < b.date ? -1 : 1)),
  };
}
