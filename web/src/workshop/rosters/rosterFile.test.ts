import type { WorkingCalendar } from '@tolvek/core/deadline';
import { type Duty, dutiesBetween, type Roster } from '@tolvek/core/roster';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dutiesAsICalendar } from '../../ui/dutiesAsICalendar.ts';
import { dutiesFromICalendar } from './rosterFile.ts';

const PEOPLE = [
  { id: 'a', name: 'Ana Lind' },
  { id: 'b', name: 'Ben Ó Ruairc' },
];
const [FROM, TO] = [Date.UTC(2026, 9, 19), Date.UTC(2026, 10, 9)];
const reading = { people: PEOPLE, zone: 'Europe/Dublin', from: FROM, to: TO };
const closed: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'UTC', holidays: [] },
  week: [[], [], [], [], [], [], []],
};
const text = (...lines: readonly string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: readonly string[]): readonly string[] => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
const at = (day: number, hour: number): number => Date.UTC(2026, 9, day, hour);

describe('a roster as iCalendar', () => {
  it('is out and in who is on duty when', () => {
    const shift = fc.record({
      ...{ id: fc.uuid(), name: fc.constant(''), since: fc.constant('2026-10-12') },
      days: fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
      from: fc.constantFrom('00:00', '06:30', '08:00', '22:00'),
      to: fc.constantFrom('02:00', '08:00', '18:15', '24:00'),
      people: fc.array(fc.constantFrom('a', 'b'), { minLength: 1, maxLength: 3 }),
      passes: fc.constantFrom({ every: 1, of: 'weeks' } as const, { every: 1, of: 'times' } as const),
    });
    let seen = 0;
    fc.assert(
      fc.property(fc.array(shift, { minLength: 1, maxLength: 3 }), (shifts) => {
        const roster: Roster = {
          ...{
            key: 'boats',
            name: 'Boats',
            zone: 'Europe/Dublin',
            calendar: 'desk',
            needed: 'never',
            shifts,
            swaps: [],
          },
        };
        const duties = dutiesBetween(roster, closed, FROM, TO);
        const out = dutiesAsICalendar(
          'Boats',
          duties.map(({ person, ...duty }, place) => ({
            ...{ ...duty, uid: `${place}@tolvek`, who: PEOPLE.find(({ id }) => id === person)?.name ?? '' },
          })),
          FROM,
        );
        const order = (a: Duty, b: Duty): number => a.from - b.from || (a.person < b.person ? -1 : 1);
        const read = dutiesFromICalendar(out, reading);
        expect([[...read.duties].sort(order), read.unknown]).toEqual([[...duties].sort(order), []]);
        seen += duties.length;
      }),
      { numRuns: 60 },
    );
    expect(seen).toBeGreaterThan(300);
  });

  it('reads what comes again, but for what is left out or moved, over a change of the clock', () => {
    const file = text(
      ...event(
        ...['UID:w', 'SUMMARY:Ana Lind', 'DTSTART;TZID=Europe/Dublin:20261021T080000'],
        ...['DTEND;TZID=Europe/Dublin:20261021T160000', 'RRULE:FREQ=WEEKLY;COUNT=3'],
        'EXDATE;TZID=Europe/Dublin:20261028T080000',
      ),
      ...event(
        ...['UID:w', 'RECURRENCE-ID;TZID=Europe/Dublin:20261104T080000', 'SUMMARY:ben o ruairc'],
        ...['DTSTART;TZID=Europe/Dublin:20261104T100000', 'DTEND;TZID=Europe/Dublin:20261104T120000'],
      ),
      ...event(
        'UID:m',
        'SUMMARY:Night',
        'ATTENDEE;CN=Ben Ó Ruairc:mailto:b@x.example',
        'DTSTART:20261020T220000Z',
        'DTEND:20261021T060000Z',
      ),
      ...event('UID:n', 'SUMMARY:Nobody we know', 'DTSTART:20261020T220000', 'DTEND:20261021T060000'),
      ...event('UID:o', 'SUMMARY:Ana Lind', 'DTSTART:20250101T080000Z', 'DTEND:20250101T090000Z'),
    );
    expect(dutiesFromICalendar(file, reading)).toEqual({
      duties: [
        { person: 'b', from: at(20, 22), to: at(21, 6) },
        // Summer time: an hour before what the clock of Dublin shows.
        { person: 'a', from: at(21, 7), to: at(21, 15) },
        { person: 'b', from: Date.UTC(2026, 10, 4, 10), to: Date.UTC(2026, 10, 4, 12) },
      ],
      unknown: ['Nobody we know'],
    });
    expect(() => dutiesFromICalendar('no calendar', reading)).toThrow();
  });
});
