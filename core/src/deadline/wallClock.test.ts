import { describe, expect, it } from 'vitest';
import { dateAt, dateInWords, dayInWords, momentInWords } from './index.ts';

const at = Date.parse('2026-07-01T23:30:00Z');

describe('the wall clock of a zone', () => {
  it('reads a moment as people there would', () => {
    expect(momentInWords(at, 'Europe/Dublin')).toBe('Thu 2 Jul, 00:30');
    expect(momentInWords(at, 'UTC')).toBe('Wed 1 Jul, 23:30');
    expect(momentInWords(at, 'Pacific/Kiritimati')).toBe('Thu 2 Jul, 13:30');
  });

  it('gives the date of the zone, not of the machine', () => {
    expect(['UTC', 'Europe/Dublin', 'America/St_Johns'].map((zone) => dateAt(at, zone))).toEqual([
      '2026-07-01',
      '2026-07-02',
      '2026-07-01',
    ]);
    expect(dateInWords(at, 'Europe/Dublin')).toBe('2 Jul 2026');
    expect(dayInWords(at, 'Europe/Dublin')).toBe('Thu 2');
  });

  it('tells the two half past ones of the night the clocks go back apart only by their instant', () => {
    const first = Date.parse('2026-10-25T00:30:00Z');
    expect(momentInWords(first, 'Europe/Dublin')).toBe('Sun 25 Oct, 01:30');
    expect(momentInWords(first + 3_600_000, 'Europe/Dublin')).toBe('Sun 25 Oct, 01:30');
  });
});
