import { type Said, said } from '@tolvek/words';
import { isDate, isZone } from '../deadline/index.ts';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import type { Roster, Shift, Swap } from './roster.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('rosters:theName'),
  zone: said('rosters:theZone'),
  calendar: said('rosters:theCalendar'),
  needed: said('rosters:theNeed'),
  onlyOnDuty: said('rosters:theWorkingTime'),
  handsOver: said('rosters:theHandOver'),
  tells: said('rosters:theEmails'),
  retired: said('rosters:isRetired'),
};

const rulesOf = (...states: readonly (Roster | null)[]): MergeRules => ({
  lists: { shifts: (item) => String(item.id), swaps: (item) => String(item.id) },
  nameOf: ([place = '', id]) => {
    if (place === 'shifts') {
      const shift = states.flatMap((state) => state?.shifts ?? []).find((each) => each.id === id);
      return shift
        ? said('rosters:oneShift', { name: shift.name || `${shift.from}–${shift.to}` })
        : said('rosters:theShifts');
    }
    if (place === 'swaps') {
      const swap = states.flatMap((state) => state?.swaps ?? []).find((each) => each.id === id);
      return swap ? said('rosters:oneSwap', { day: swap.from.slice(0, 10) }) : said('rosters:theSwaps');
    }
    return PLACES[place] ?? said('rosters:theRoster');
  },
});

const CLOCK = /^([01]\d|2[0-3]):[0-5]\d$/;
const isClock = (text: string): boolean => CLOCK.test(text);
const isWallClock = (text: string): boolean => isDate(text.slice(0, 10)) && text[10] === 'T' && isClock(text.slice(11));

/** What findings of a roster depend on besides: the calendars there are, and who is here. */
export interface RosterSurroundings {
  readonly calendars: readonly string[];
  /** People who are named and are not here any more, by id. */
  readonly gone: readonly string[];
}

const isCount = (count: number): boolean => Number.isInteger(count) && count >= 1;

function* wrongInShift(shift: Shift, gone: readonly string[]): Generator<readonly ['error' | 'caution', string, Said]> {
  const { days, from, to, people, passes, since, until } = shift;
  if (days.length === 0) yield ['error', 'days', said('rosters:noDays')];
  if (!isClock(from)) yield ['error', 'from', said('rosters:badTime')];
  if (!isClock(to) && to !== '24:00') yield ['error', 'to', said('rosters:badTime')];
  if (people.length === 0) yield ['error', 'people', said('rosters:noPeople')];
  if (!isCount(passes.every)) yield ['error', 'passes', said('rosters:badTurn')];
  if (!isDate(since)) yield ['error', 'since', said('rosters:badDay')];
  if (until !== undefined && !isDate(until)) yield ['error', 'until', said('rosters:badDay')];
  else if (until !== undefined && until < since) yield ['error', 'until', said('rosters:endsBefore')];
  if (people.some((id) => gone.includes(id))) yield ['caution', 'people', said('rosters:goneInShift')];
}

function* wrongInSwap(
  { from, until, instead, by }: Swap,
  gone: readonly string[],
): Generator<readonly ['error' | 'caution', string, Said]> {
  if (!isWallClock(from)) yield ['error', 'from', said('rosters:badMoment')];
  if (!isWallClock(until)) yield ['error', 'until', said('rosters:badMoment')];
  else if (until <= from) yield ['error', 'until', said('rosters:swapEndsBefore')];
  if (instead === null && by === null) yield ['error', 'by', said('rosters:swapNobody')];
  if (instead !== null && instead === by) yield ['error', 'by', said('rosters:swapSame')];
  if (by !== null && gone.includes(by)) yield ['caution', 'by', said('rosters:goneInSwap')];
}

function found(
  { name, zone, calendar, shifts, swaps }: Roster,
  { calendars, gone }: RosterSurroundings,
): readonly DesignFinding[] {
  const finding = (severity: 'error' | 'caution', at: string, message: Said): DesignFinding => ({
    ...{ severity, page: 'roster', at, message },
  });
  return [
    ...(name.trim() === '' ? [finding('error', 'name', said('rosters:noName'))] : []),
    ...(isZone(zone) ? [] : [finding('error', 'zone', said('rosters:badZone', { zone }))]),
    ...(calendars.includes(calendar) ? [] : [finding('error', 'calendar', said('rosters:noCalendar'))]),
    ...(shifts.length + swaps.length === 0 ? [finding('error', 'shifts', said('rosters:noShifts'))] : []),
    ...shifts.flatMap((shift) =>
      [...wrongInShift(shift, gone)].map(([severity, at, message]) =>
        finding(severity, `shifts ${shift.id} ${at}`, message),
      ),
    ),
    ...swaps.flatMap((swap) =>
      [...wrongInSwap(swap, gone)].map(([severity, at, message]) =>
        finding(severity, `swaps ${swap.id} ${at}`, message),
      ),
    ),
  ];
}

/** Rosters as designs. They are in force at once. */
export const ROSTER: DesignKind<Roster, RosterSurroundings> = {
  kind: 'roster',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, rulesOf(after, before)),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rulesOf(base, theirs, mine)),
  findings: found,
  refersTo: ({ calendar }) => [{ kind: 'calendar', key: calendar, at: said('rosters:theCalendar') }],
};
