import type { BodyOf } from '@tolvek/contract';
import { periodAt } from '@tolvek/core/deadline';
import { MOST_SWAPS, type Roster, type Shift, type Swap } from '@tolvek/core/roster';
import { moved } from '../edits.ts';

export type RosterDraft = BodyOf<'createRoster'>['roster'];

/** A roster with a key, for what reckons with it; one that is new has none yet. */
export const rosterOf = (draft: RosterDraft, key = ''): Roster => ({ ...draft, key });

/** The Monday of the week of a day (ISO 8601). */
export const mondayOf = (day: string): string => periodAt('week', Date.parse(`${day}T12:00:00Z`), 'UTC').from;

/** A shift as it is added: working days from eight to six, from this week on, for each a week. */
export const newShift = (id: string, today: string): Shift => ({
  ...{ id, name: '', days: [1, 2, 3, 4, 5], from: '08:00', to: '18:00', people: [] },
  ...{ passes: { every: 1, of: 'weeks' }, since: mondayOf(today) },
});

export const newRoster = (
  name: string,
  { zone, calendar, today, id }: { zone: string; calendar: string; today: string; id: string },
): RosterDraft => ({ name, zone, calendar, needed: 'open', shifts: [newShift(id, today)], swaps: [] });

/** A shift with something else; what is said to be undefined is said no more. */
export const editShift = (draft: RosterDraft, id: string, edit: Partial<Omit<Shift, 'id'>>): RosterDraft => ({
  ...draft,
  shifts: draft.shifts.map((shift) => {
    if (shift.id !== id) return shift;
    const { until, skipsClosed, ...others } = { ...shift, ...edit };
    return {
      ...others,
      ...(until === undefined ? {} : { until }),
      ...(skipsClosed ? { skipsClosed } : {}),
    };
  }),
});

/** A shift that begins on another weekday besides, or no more; Monday is 1. */
export function toggleDay(draft: RosterDraft, id: string, day: number): RosterDraft {
  const days = draft.shifts.find((shift) => shift.id === id)?.days ?? [];
  const next = days.includes(day) ? days.filter((each) => each !== day) : [...days, day].sort((a, b) => a - b);
  return editShift(draft, id, { days: next });
}

/** Somebody of a shift comes one place earlier or later. */
export function movePerson(draft: RosterDraft, id: string, place: number, by: -1 | 1): RosterDraft {
  const people = draft.shifts.find((shift) => shift.id === id)?.people ?? [];
  return people[place] && people[place + by] ? editShift(draft, id, { people: moved(people, place, by) }) : draft;
}

/** Swaps with some more, as long as there is room for them. */
export const withSwaps = (draft: RosterDraft, more: readonly Swap[]): RosterDraft => ({
  ...draft,
  swaps: [...draft.swaps, ...more].slice(0, MOST_SWAPS),
});

export const withoutSwap = (draft: RosterDraft, id: string): RosterDraft => ({
  ...draft,
  swaps: draft.swaps.filter((swap) => swap.id !== id),
});

/** Whether a swap is over; `now`: what the clock of the roster shows. */
export const isOver = ({ until }: Swap, now: string): boolean => until <= now;
