import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CalendarDraft, Week } from './calendarDraft.ts';
import { asICalendar, fromICalendar } from './icalendar.ts';

const clock = (minutes: number): string =>
  minutes === 1_440
    ? '24:00'
    : `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
/** Hours of a day, one after the other, some up to midnight. */
const hours = fc
  .uniqueArray(fc.integer({ min: 0, max: 1_440 }), { minLength: 0, maxLength: 6 })
  .map((some) => some.sort((a, b) => a - b))
  .map((some) =>
    Array.from(
      { length: some.length >> 1 },
      (_, n) => [clock(some[n * 2] ?? 0), clock(some[n * 2 + 1] ?? 0)] as [string, string],
    ),
  );
const date = fc
  .integer({ min: 0, max: 3_000 })
  .map((day) => new Date(Date.UTC(2024, 0, 1) + day * 86_400_000).toISOString().slice(0, 10));
const name = fc
  .string({ minLength: 1, maxLength: 120, size: 'max', unit: 'grapheme' })
  .map((text) => text.replace(/[\p{C}]/gu, '').trim() || 'x');
const special = fc
  .record({ date, name, hours: fc.option(hours, { nil: undefined }) })
  .map(({ hours: own, ...day }) => ({
    ...day,
    ...(own && own.length > 0 ? { hours: own } : {}),
  }));
const calendar: fc.Arbitrary<CalendarDraft> = fc.record({
  name,
  zone: fc.constantFrom('Europe/Dublin', 'UTC', 'America/St_Johns'),
  week: fc.tuple(hours, hours, hours, hours, hours, hours, hours).map((week) => week as unknown as Week),
  holidays: fc.uniqueArray(special, { selector: (day) => day.date, maxLength: 12 }),
});

describe('a working calendar as iCalendar', () => {
  it('comes back as it went: hours, closed days, days with hours of their own, whatever they are called', () => {
    const seen = { hours: 0, closed: 0, own: 0, midnight: 0, folded: 0 };
    fc.assert(
      fc.property(calendar, (went) => {
        const text = asICalendar(went);
        const back = fromICalendar(text, []);
        const isOpen = went.week.some((day) => day.length > 0);
        expect(back.week).toEqual(isOpen ? went.week : null);
        expect(back.days).toEqual([...went.holidays].sort((a, b) => (a.date < b.date ? -1 : 1)));
        expect([back.name, back.zone]).toEqual([went.name, went.zone]);
        seen.hours += went.week.flat().length;
        seen.closed += went.holidays.filter((day) => !day.hours).length;
        seen.own += went.holidays.filter((day) => day.hours).length;
        if (text.includes('\r\n ')) seen.folded += 1;
        if (JSON.stringify(went).includes('24:00')) seen.midnight += 1;
      }),
      { numRuns: 200 },
    );
    console.log('calendars that went and came back:', seen);
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(3);
  });

  it('is written as the standard says: days without an end of their own, lines ended by CR LF', () => {
    const text = asICalendar({
      ...{ name: 'Desk; hours', zone: 'Europe/Dublin' },
      week: [[['09:00', '17:00']], [], [], [], [], [], []] as unknown as Week,
      holidays: [{ date: '2026-12-25', name: 'Christmas, all day' }],
    });
    const lines = text.split('\r\n');
    for (const line of [
      ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'END:VCALENDAR', 'RRULE:FREQ=WEEKLY;BYDAY=MO'],
      ...['DTSTART;TZID=Europe/Dublin:20240101T090000', 'DTEND;TZID=Europe/Dublin:20240101T170000'],
      ...['DTSTART;VALUE=DATE:20261225', 'DTEND;VALUE=DATE:20261226', 'SUMMARY:Christmas\\, all day'],
    ])
      expect(lines).toContain(line);
  });

  it('is read from what others write: folded lines, several days, days of every year, nothing but a beginning', () => {
    const text = [
      ...['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Somebody//Else//EN', 'X-WR-CALNAME:Feiertage'],
      ...[
        'BEGIN:VEVENT',
        'UID:1',
        'SUMMARY:Weihnachten und der',
        '  zweite Tag',
        'DTSTART;VALUE=DATE:20261225',
        'DTEND;VALUE=DATE:20261227',
        'END:VEVENT',
      ],
      ...['BEGIN:VEVENT', 'UID:2', 'SUMMARY:Neujahr', 'DTSTART;VALUE=DATE:20200101', 'RRULE:FREQ=YEARLY', 'END:VEVENT'],
      ...[
        'BEGIN:VEVENT',
        'UID:3',
        'SUMMARY:Offen',
        'DTSTART;TZID=Europe/Berlin:20240102T080000',
        'DTEND;TZID=Europe/Berlin:20240102T120000',
        'RRULE:FREQ=WEEKLY;BYDAY=TU,TH',
        'END:VEVENT',
      ],
      'END:VCALENDAR',
    ].join('\r\n');
    const read = fromICalendar(text, [2026, 2027]);
    expect(read.days).toEqual([
      { date: '2026-01-01', name: 'Neujahr' },
      { date: '2026-12-25', name: 'Weihnachten und der zweite Tag' },
      { date: '2026-12-26', name: 'Weihnachten und der zweite Tag' },
      { date: '2027-01-01', name: 'Neujahr' },
    ]);
    expect([read.name, read.zone, read.week?.map((day) => day.length)]).toEqual([
      'Feiertage',
      'Europe/Berlin',
      [0, 1, 0, 1, 0, 0, 0],
    ]);
    expect(() => fromICalendar('name,date\nx,2026-01-01', [])).toThrow();
  });
});
