import { describe, expect, it } from 'vitest';
import {
  editShift,
  isOver,
  mondayOf,
  movePerson,
  newRoster,
  toggleDay,
  withoutSwap,
  withSwaps,
} from './rosterDraft.ts';

const draft = newRoster('Boats', { zone: 'Europe/Dublin', calendar: 'desk', today: '2026-11-25', id: 'one' });
const only = (of: typeof draft) => of.shifts[0];

describe('a roster as it is edited', () => {
  it('begins with the week of today', () => {
    expect(only(draft)?.since).toBe('2026-11-23');
    expect(['2026-11-22', '2026-11-23', '2026-11-29', '2027-01-01'].map(mondayOf)).toEqual([
      ...['2026-11-16', '2026-11-23', '2026-11-23', '2026-12-28'],
    ]);
  });

  it('takes days on and off in the order of the week', () => {
    expect(only(toggleDay(toggleDay(draft, 'one', 7), 'one', 3))?.days).toEqual([1, 2, 4, 5, 7]);
    expect(only(toggleDay(toggleDay(draft, 'one', 3), 'one', 3))?.days).toEqual([1, 2, 3, 4, 5]);
  });

  it('says nothing of what is as usual, and leaves other shifts alone', () => {
    const until = editShift(draft, 'one', { until: '2027-01-01', skipsClosed: true });
    expect(only(until)).toMatchObject({ until: '2027-01-01', skipsClosed: true });
    expect(only(editShift(until, 'one', { until: undefined, skipsClosed: false }))).toEqual(only(draft));
    expect(editShift(draft, 'two', { name: 'Night' })).toEqual(draft);
  });

  it('moves people in their turn, and keeps who can’t move', () => {
    const three = editShift(draft, 'one', { people: ['a', 'b', 'c'] });
    expect(only(movePerson(three, 'one', 2, -1))?.people).toEqual(['a', 'c', 'b']);
    expect(movePerson(three, 'one', 0, -1)).toEqual(three);
    expect(movePerson(three, 'one', 2, 1)).toEqual(three);
  });

  it('takes swaps in and out', () => {
    const swap = { id: 's', from: '2026-11-23T08:00', until: '2026-11-23T18:00', instead: 'a', by: 'b', note: '' };
    expect(withoutSwap(withSwaps(draft, [swap]), 's')).toEqual(draft);
    expect([isOver(swap, '2026-11-23T18:00'), isOver(swap, '2026-11-23T17:59')]).toEqual([true, false]);
  });
});
