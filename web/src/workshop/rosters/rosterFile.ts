import { isZone } from '@tolvek/core/deadline';
import { nameCompared } from '@tolvek/core/people';
import { type Duty, momentOf } from '@tolvek/core/roster';
import ICAL from 'ical.js';

interface ReadDuties {
  readonly duties: readonly Duty[];
  /** Whom entries name who is not of the staff, as they are written there. */
  readonly unknown: readonly string[];
}

interface Reading {
  readonly people: readonly { readonly id: string; readonly name: string }[];
  /** The zone (IANA) of times that say none. */
  readonly zone: string;
  /** What is over before or begins after these moments (epoch ms) is left. */
  readonly from: number;
  readonly to: number;
}

/** So many times an entry that comes again is read at most. */
const MOST_TIMES = 1_000;

/** When a time of a file is, epoch ms: by its own zone, by UTC, or on the clock of the roster. */
function momentIn(time: ICAL.Time, tzid: string | undefined, zone: string): number {
  if (time.zone === ICAL.Timezone.utcTimezone) return time.toJSDate().getTime();
  const written = `${time.toString().slice(0, 10)}T${time.isDate ? '00:00' : time.toString().slice(11, 16)}`;
  return momentOf(written, tzid !== undefined && isZone(tzid) ? tzid : zone);
}

/** Who an event names: its attendees by what they are called, or else its summary. */
function namesIn(component: ICAL.Component): readonly string[] {
  const attendees = component.getAllProperties('attendee').flatMap((each) => each.getParameter('cn') ?? []);
  const summary = component.getFirstPropertyValue('summary');
  return attendees.length > 0 ? attendees.map(String) : typeof summary === 'string' ? [summary] : [];
}

/**
 * Reads who is on duty from iCalendar, each time of what comes again as a duty of its own: events name one of the staff in
 * their summary, or as attendees. Whoever it names otherwise is told.
 *
 * @throws Error for a text that is no iCalendar.
 */
export function dutiesFromICalendar(text: string, { people, zone, from, to }: Reading): ReadDuties {
  const calendar = new ICAL.Component(ICAL.parse(text));
  const known = new Map(people.map(({ id, name }) => [nameCompared(name), id]));
  const events = calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
  const duties: Duty[] = [];
  const unknown = new Set<string>();
  const take = (event: ICAL.Event, start: ICAL.Time, end: ICAL.Time): boolean => {
    const tzid = event.component.getFirstProperty('dtstart')?.getParameter('tzid');
    const stretch = {
      from: momentIn(start, typeof tzid === 'string' ? tzid : undefined, zone),
      to: momentIn(end, typeof tzid === 'string' ? tzid : undefined, zone),
    };
    if (stretch.from >= to) return false;
    if (stretch.to <= from || stretch.to <= stretch.from) return true;
    for (const name of namesIn(event.component)) {
      const person = known.get(nameCompared(name));
      if (person === undefined) unknown.add(name);
      else duties.push({ person, ...stretch });
    }
    return true;
  };
  for (const event of events) {
    if (event.isRecurrenceException()) continue;
    if (!event.isRecurring()) {
      take(event, event.startDate, event.endDate);
      continue;
    }
    for (const other of events)
      if (other.isRecurrenceException() && other.uid === event.uid) event.relateException(other);
    const times = event.iterator();
    for (let n = 0; n < MOST_TIMES; n += 1) {
      const next = times.next();
      if (!next) break;
      const { item, startDate, endDate } = event.getOccurrenceDetails(next);
      if (!take(item, startDate, endDate)) break;
    }
  }
  return { duties: duties.sort((a, b) => a.from - b.from), unknown: [...unknown].sort() };
}
