import { Temporal } from 'temporal-polyfill';
import { instantAt, type OpenStretch, union, type WorkingCalendar, within, without } from '../deadline/index.ts';
import { grouped } from '../own/index.ts';
import type { Duty, Roster, Shift, Swap } from './roster.ts';

const DAY = 86_400_000;

/** The moment (epoch ms) of `2026-11-23T08:00` in a zone. */
export const momentOf = (wallClock: string, zone: string): number =>
  Temporal.PlainDateTime.from(wallClock).toZonedDateTime(zone).epochMilliseconds;

/** How often a shift begins from its first day on before a day, `days` after it, those it skips counted as well. */
function timesBefore({ days, since }: Shift, after: number): number {
  const first = Temporal.PlainDate.from(since).dayOfWeek;
  const ofWeek = (count: number): number => days.filter((weekday) => (weekday - first + 7) % 7 < count).length;
  return Math.floor(after / 7) * days.length + ofWeek(after % 7);
}

/** Who has a shift that begins on a day, by turn; nobody before its first day, after its last or on another weekday. */
export function whoHas(shift: Shift, day: Temporal.PlainDate): string | null {
  const { days, people, passes, since, until } = shift;
  const written = day.toString();
  if (!days.includes(day.dayOfWeek) || written < since || (until !== undefined && written > until)) return null;
  const after = Temporal.PlainDate.from(since).until(day, { largestUnit: 'day' }).days;
  const turns = passes.of === 'weeks' ? Math.floor(after / 7) : timesBefore(shift, after);
  return people[Math.floor(turns / passes.every) % people.length] ?? null;
}

/** What shifts say between two moments (epoch ms), before anything is swapped. */
function plannedIn({ zone, shifts }: Roster, calendar: WorkingCalendar, window: OpenStretch): readonly Duty[] {
  const closed = new Set(calendar.holidays.flatMap(({ date, hours = [] }) => (hours.length === 0 ? [date] : [])));
  const first = Temporal.Instant.fromEpochMilliseconds(window.from).toZonedDateTimeISO(zone).toPlainDate();
  const duties: Duty[] = [];
  // A shift lasts a day at most, so that one of the day before may still go on.
  for (let day = first.subtract({ days: 2 }); ; day = day.add({ days: 1 })) {
    if (day.toZonedDateTime(zone).epochMilliseconds > window.to) return duties;
    for (const shift of shifts) {
      if (shift.skipsClosed && closed.has(day.toString())) continue;
      const person = whoHas(shift, day);
      if (person === null) continue;
      const from = instantAt(day, shift.from, zone);
      const to = instantAt(shift.to > shift.from ? day : day.add({ days: 1 }), shift.to, zone);
      if (to > from && to > window.from && from < window.to) duties.push({ person, from, to });
    }
  }
}

/** Duties by person, each a list of stretches in order that neither touch nor overlap. */
type ByPerson = Map<string, readonly OpenStretch[]>;

function swapped(duties: ByPerson, { instead, by, ...swap }: Swap, zone: string): void {
  const when = { from: momentOf(swap.from, zone), to: momentOf(swap.until, zone) };
  if (instead === null) {
    if (by !== null) duties.set(by, union([...(duties.get(by) ?? []), when]));
    return;
  }
  const theirs = duties.get(instead) ?? [];
  const taken = theirs.flatMap((stretch) => within(stretch, when));
  if (taken.length === 0) return;
  duties.set(
    instead,
    theirs.flatMap((stretch) => without(stretch, when)),
  );
  if (by !== null) duties.set(by, union([...(duties.get(by) ?? []), ...taken]));
}

/**
 * Who is on duty between two moments (epoch ms), in the order in which they begin: shifts as they come, with what was
 * swapped of them. What somebody has without a break is one duty; it is cut at the two moments. `calendar`: the one that
 * the roster names.
 */
export function dutiesBetween(roster: Roster, calendar: WorkingCalendar, from: number, to: number): readonly Duty[] {
  const window = { from, to };
  const planned = grouped(plannedIn(roster, calendar, window), ({ person }) => person);
  const duties: ByPerson = new Map([...planned].map(([person, theirs]) => [person, union(theirs)]));
  for (const swap of roster.swaps) swapped(duties, swap, roster.zone);
  return [...duties]
    .flatMap(([person, theirs]) =>
      theirs.flatMap((stretch) => within(stretch, window)).map((stretch) => ({ person, ...stretch })),
    )
    .sort((a, b) => a.from - b.from || a.to - b.to || (a.person < b.person ? -1 : 1));
}

/** Who is on duty at a moment (epoch ms), by id. */
export const onDutyAt = (roster: Roster, calendar: WorkingCalendar, at: number): readonly string[] => [
  ...new Set(dutiesBetween(roster, calendar, at, at + 1).map(({ person }) => person)),
];

/** So many days ahead whoever comes next is looked for: two months. */
export const AHEAD = 62;

/** Who comes on duty next after a moment (epoch ms), by id, and when; null where nobody does for two months. */
export function nextOnDuty(
  roster: Roster,
  calendar: WorkingCalendar,
  at: number,
): { readonly people: readonly string[]; readonly at: number } | null {
  // Most come within days: a week is looked at first.
  for (const days of [7, AHEAD]) {
    const coming = dutiesBetween(roster, calendar, at, at + days * DAY).filter(({ from }) => from > at);
    const first = coming[0]?.from;
    if (first !== undefined)
      return { people: coming.filter(({ from }) => from === first).map(({ person }) => person), at: first };
  }
  return null;
}

/** Everybody whom a roster names, by id: in a shift or a swap. */
export const peopleOn = ({ shifts, swaps }: Pick<Roster, 'shifts' | 'swaps'>): readonly string[] => [
  ...new Set([...shifts.flatMap(({ people }) => people), ...swaps.flatMap(({ by }) => by ?? [])]),
];
