import { describe, expect, it } from 'vitest';
import { type Dated, viewAsICalendar } from './viewAsICalendar.ts';

const at = { zone: 'Europe/Copenhagen', address: 'https://desk.example', now: Date.parse('2026-11-23T09:00:00Z') };
/** The lines of one event, unfolded (RFC 5545, 3.1). */
const linesOf = (one: Partial<Dated>): readonly string[] => {
  const text = viewAsICalendar('Trips', [{ number: 'VT-1', summary: 'A; b, c', begins: '', ends: null, ...one }], at);
  return text.replace(/\r\n[ \t]/g, '').split('\r\n');
};

describe('a view as iCalendar', () => {
  it('has whole days as days, the last of them included', () => {
    const lines = linesOf({ begins: '2026-11-30', ends: '2026-12-01' });
    expect(lines).toEqual(expect.arrayContaining(['DTSTART;VALUE=DATE:20261130', 'DTEND;VALUE=DATE:20261202']));
    expect(lines).toEqual(expect.arrayContaining(['SUMMARY:A\\; b\\, c', 'UID:VT-1@desk.example']));
    expect(linesOf({ begins: '2026-11-30' })).toContain('DTEND;VALUE=DATE:20261201');
    expect(linesOf({ begins: '2026-11-30', ends: '2026-11-02' })).toContain('DTEND;VALUE=DATE:20261201');
  });

  it('has moments in UTC, those without a zone on the clock of the desk', () => {
    expect(linesOf({ begins: '2026-07-01T09:00', ends: '2026-12-01T09:00' })).toEqual(
      expect.arrayContaining(['DTSTART:20260701T070000Z', 'DTEND:20261201T080000Z']),
    );
    const utc = linesOf({ begins: '2026-07-01T09:00:00.000Z' });
    expect(utc).toContain('DTSTART:20260701T090000Z');
    expect(utc.some((line) => line.startsWith('DTEND'))).toBe(false);
    expect(linesOf({ begins: '2026-07-01T09:00', ends: '2026-07-02' })).toContain('DTEND:20260701T220000Z');
  });
});
