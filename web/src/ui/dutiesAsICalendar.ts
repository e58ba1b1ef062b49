import ICAL from 'ical.js';

const utc = (at: number): ICAL.Time => ICAL.Time.fromJSDate(new Date(at), true);

/**
 * Duties as iCalendar (RFC 5545): each an event, with who is on duty as its summary. `now`: when the file is made; all
 * moments are epoch ms.
 */
export function dutiesAsICalendar(
  name: string,
  duties: readonly { readonly from: number; readonly to: number; readonly who: string; readonly uid: string }[],
  now: number,
): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('prodid', '-//Tolvek//Roster//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('x-wr-calname', name);
  for (const { from, to, who, uid } of duties) {
    const event = new ICAL.Component('vevent');
    event.updatePropertyWithValue('uid', uid);
    event.updatePropertyWithValue('dtstamp', utc(now));
    event.updatePropertyWithValue('summary', who);
    event.updatePropertyWithValue('dtstart', utc(from));
    event.updatePropertyWithValue('dtend', utc(to));
    calendar.addSubcomponent(event);
  }
  return calendar.toString();
}
