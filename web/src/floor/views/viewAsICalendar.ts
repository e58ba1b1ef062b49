import { instantsOf } from '@tolvek/core/deadline';
import ICAL from 'ical.js';
import { daysLater } from './days.ts';

/** One of a view with its days (ISO 8601), moments of the desk’s clock without a zone, or moments in UTC. */
export interface Dated {
  readonly number: string;
  readonly summary: string;
  readonly begins: string;
  readonly ends: string | null;
}

const isDay = (text: string): boolean => text.length <= 10;
const momentOf = (text: string, zone: string): number => {
  if (text.endsWith('Z')) return Date.parse(text);
  const wall = isDay(text) ? `${text}T00:00` : text.slice(0, 16);
  return instantsOf(wall, zone)[0] ?? Date.parse(`${wall}Z`);
};
const time = (text: string, zone: string): ICAL.Time =>
  isDay(text) ? ICAL.Time.fromDateString(text) : ICAL.Time.fromJSDate(new Date(momentOf(text, zone)), true);

/**
 * What stands on days as iCalendar (RFC 5545): whole days as days, which end before the day after (3.6.1), moments in UTC.
 * `zone`: of the desk; `address`: of the pages; `now`: epoch ms.
 */
export function viewAsICalendar(
  name: string,
  all: readonly Dated[],
  { zone, address, now }: { readonly zone: string; readonly address: string; readonly now: number },
): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Tolvek//View//EN');
  calendar.updatePropertyWithValue('x-wr-calname', name);
  for (const { number, summary, begins, ends } of all) {
    const event = new ICAL.Component('vevent');
    event.updatePropertyWithValue('uid', `${number}@${new URL(address).host}`);
    event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(now), true));
    event.updatePropertyWithValue('summary', summary);
    event.updatePropertyWithValue('dtstart', time(begins, zone));
    if (isDay(begins)) {
      const last = ends !== null && ends.slice(0, 10) > begins ? ends.slice(0, 10) : begins;
      event.updatePropertyWithValue('dtend', time(daysLater(last, 1), zone));
    } else if (ends !== null && momentOf(ends, zone) > momentOf(begins, zone))
      event.updatePropertyWithValue('dtend', time(isDay(ends) ? `${ends}T00:00` : ends, zone));
    event.updatePropertyWithValue('url', `${address}/floor/all/${number}`);
    calendar.addSubcomponent(event);
  }
  return calendar.toString();
}
