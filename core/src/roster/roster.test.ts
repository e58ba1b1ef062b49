import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { WorkingCalendar } from '../deadline/index.ts';
import {
  changedDuties,
  dutiesBetween,
  gapsBetween,
  nextOnDuty,
  onDutyAt,
  type Roster,
  type Shift,
  type Swap,
  weeksFrom,
} from './index.ts';

const PEOPLE = ['ana', 'ben', 'cy'] as const;
const HOUR = 3_600_000;
/** Zones with a change of the clock on Sunday 25 October 2026, or none. */
const ZONES = ['Europe/Dublin', 'Europe/Berlin', 'UTC'] as const;
/** Monday before the change of the clock. */
const MONDAY = Date.UTC(2026, 9, 19);
const DAYS = 10;
const date = (day: number): string => new Date(MONDAY + day * 24 * HOUR).toISOString().slice(0, 10);
const two = (n: number): string => String(n).padStart(2, '0');

const clock = fc.integer({ min: 0, max: 23 }).map((hour) => `${two(hour)}:00`);
const shift: fc.Arbitrary<Shift> = fc.record(
  {
    id: fc.uuid(),
    name: fc.constant(''),
    days: fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
    from: clock,
    to: fc.oneof(clock, fc.constant('24:00')),
    people: fc.array(fc.constantFrom(...PEOPLE), { minLength: 1, maxLength: 4 }),
    passes: fc.record({
      every: fc.integer({ min: 1, max: 3 }),
      of: fc.constantFrom('weeks' as const, 'times' as const),
    }),
    since: fc.integer({ min: -30, max: 4 }).map(date),
    until: fc.integer({ min: 5, max: 12 }).map(date),
    skipsClosed: fc.boolean(),
  },
  { requiredKeys: ['id', 'name', 'days', 'from', 'to', 'people', 'passes', 'since'] },
);
const swap: fc.Arbitrary<Swap> = fc
  .record({
    day: fc.nat(DAYS - 1),
    hour: fc.nat(23),
    long: fc.integer({ min: 1, max: 40 }),
    instead: fc.option(fc.constantFrom(...PEOPLE)),
    by: fc.option(fc.constantFrom(...PEOPLE)),
  })
  .filter(({ instead, by }) => instead !== by)
  .map(({ day, hour, long, instead, by }) => {
    const end = hour + long;
    return {
      ...{ id: `${day} ${hour} ${long} ${instead} ${by}`, note: '', instead, by },
      ...{ from: `${date(day)}T${two(hour)}:00`, until: `${date(day + Math.floor(end / 24))}T${two(end % 24)}:00` },
    };
  });
const rosters: fc.Arbitrary<Roster> = fc.record({
  ...{ key: fc.constant('boats'), name: fc.constant('Boats'), calendar: fc.constant('desk') },
  zone: fc.constantFrom(...ZONES),
  needed: fc.constantFrom('open' as const, 'always' as const, 'never' as const),
  shifts: fc.array(shift, { maxLength: 3 }),
  swaps: fc.array(swap, { maxLength: 4 }),
});
const CLOSED = date(2);
const CALENDAR: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'UTC' },
  week: [
    [['08:00', '18:00']],
    [['08:00', '18:00']],
    [['08:00', '18:00']],
    [['08:00', '18:00']],
    [['08:00', '12:00']],
    [],
    [],
  ],
  holidays: [{ date: CLOSED, name: 'Founders’ day' }],
};

/** What the clock of a zone shows, by the formatter of the platform. */
const formats = new Map(
  ZONES.map((zone) => [
    zone,
    new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }),
  ]),
);
const shown = (at: number, zone: string): string => (formats.get(zone as 'UTC')?.format(at) ?? '').replace(' ', 'T');

/** How often a shift began before a day, day by day from its first on. */
function turnsBefore({ days, since, passes }: Shift, day: string): number {
  let [times, elapsed] = [0, 0];
  for (let at = Date.parse(since); new Date(at).toISOString().slice(0, 10) < day; at += 24 * HOUR) {
    if (days.includes(new Date(at).getUTCDay() || 7)) times += 1;
    elapsed += 1;
  }
  return Math.floor((passes.of === 'times' ? times : Math.floor(elapsed / 7)) / passes.every);
}

/** Who is on duty at a moment, read slowly: the clock is looked at, and each shift and swap asked in turn. */
function slowly({ zone, shifts, swaps }: Roster, at: number): readonly string[] {
  const now = shown(at, zone);
  const before = new Date(Date.parse(now.slice(0, 10)) - 24 * HOUR).toISOString().slice(0, 10);
  const on = new Set<string>();
  for (const each of shifts)
    for (const day of [before, now.slice(0, 10)]) {
      const overnight = each.to <= each.from;
      const [hour] = [now.slice(11)];
      const isIn = day === before ? overnight && hour < each.to : hour >= each.from && (overnight || hour < each.to);
      if (!isIn || !each.days.includes(new Date(day).getUTCDay() || 7)) continue;
      if (day < each.since || day > (each.until ?? '9999') || (each.skipsClosed && day === CLOSED)) continue;
      on.add(each.people[turnsBefore(each, day) % each.people.length] ?? '');
    }
  for (const { from, until, instead, by } of swaps) {
    if (now < from || now >= until) continue;
    if (instead !== null && !on.delete(instead)) continue;
    if (by !== null) on.add(by);
  }
  return [...on].sort();
}

/** Hours that are looked at: the clock is not changed in them. */
const HOURS = Array.from({ length: DAYS * 24 }, (_, hour) => MONDAY + hour * HOUR).filter(
  (at) => at < Date.UTC(2026, 9, 24, 22) || at > Date.UTC(2026, 9, 25, 3),
);

describe('who is on duty', () => {
  it('is whoever the shifts and the swaps say at each hour, over the change of the clock', () => {
    const met = { nobody: 0, one: 0, several: 0, swapped: 0, overnight: 0 };
    fc.assert(
      fc.property(rosters, (roster) => {
        const duties = dutiesBetween(roster, CALENDAR, MONDAY, MONDAY + DAYS * 24 * HOUR);
        for (const at of HOURS) {
          const on = duties.flatMap(({ person, from, to }) => (from <= at && at < to ? [person] : [])).sort();
          const wanted = slowly(roster, at);
          expect([shown(at, roster.zone), on]).toEqual([shown(at, roster.zone), wanted]);
          met[wanted.length === 0 ? 'nobody' : wanted.length === 1 ? 'one' : 'several'] += 1;
        }
        const some = HOURS[roster.shifts.length * 31] ?? MONDAY;
        expect([...onDutyAt(roster, CALENDAR, some)].sort()).toEqual(slowly(roster, some));
        met.overnight += roster.shifts.filter(({ from, to }) => to <= from).length;
        met.swapped += roster.swaps.length;
        // Nobody has two duties that touch.
        for (const one of duties)
          expect(duties.some((other) => other.person === one.person && other.from === one.to)).toBe(false);
      }),
      { numRuns: 120 },
    );
    console.log('hours of rosters', met);
    for (const count of Object.values(met)) expect(count).toBeGreaterThan(30);
  });

  it('leaves gaps where somebody is needed and nobody there is on duty, and says who is missed', () => {
    const met = { open: 0, always: 0, never: 0, away: 0, nobody: 0 };
    fc.assert(
      fc.property(
        rosters,
        fc.array(fc.tuple(fc.constantFrom(...PEOPLE), fc.nat(DAYS - 1)), { maxLength: 6 }),
        (roster, absences) => {
          const gone = new Set(absences.map(([person, day]) => `${person} ${date(day)}`));
          const isAway = (person: string, day: string): boolean => gone.has(`${person} ${day}`);
          const to = MONDAY + DAYS * 24 * HOUR;
          const gaps = gapsBetween(roster, CALENDAR, { zone: 'UTC', isAway }, MONDAY, to);
          for (const at of HOURS) {
            const [day, hour] = [new Date(at).toISOString().slice(0, 10), new Date(at).getUTCHours()];
            const weekday = new Date(at).getUTCDay();
            const isOpen =
              day !== CLOSED && weekday >= 1 && weekday <= 5 && hour >= 8 && hour < (weekday === 5 ? 12 : 18);
            const isNeeded = roster.needed === 'always' || (roster.needed === 'open' && isOpen);
            const on = slowly(roster, at);
            const isGap = isNeeded && on.every((person) => isAway(person, day));
            const found = gaps.filter(({ from, to: end }) => from <= at && at < end);
            expect([day, hour, found.map(({ away }) => away)]).toEqual([day, hour, isGap ? [on] : []]);
            if (isGap) met[on.length > 0 ? 'away' : 'nobody'] += 1;
          }
          met[roster.needed] += 1;
        },
      ),
      { numRuns: 120 },
    );
    console.log('gaps of rosters', met);
    for (const count of Object.values(met)) expect(count).toBeGreaterThan(20);
  });

  it('says who comes next, and when', () => {
    const met = { somebody: 0, nobody: 0 };
    fc.assert(
      fc.property(rosters, fc.nat(48), (roster, hour) => {
        const at = MONDAY + hour * HOUR;
        const next = nextOnDuty(roster, CALENDAR, at);
        met[next ? 'somebody' : 'nobody'] += 1;
        if (!next) return;
        expect(next.at).toBeGreaterThan(at);
        // Whoever comes was not there a minute before; until then nobody comes.
        const before = new Set(slowly(roster, next.at - 60_000));
        if (next.at < Date.UTC(2026, 9, 24, 22)) {
          expect(slowly(roster, next.at).filter((person) => !before.has(person))).toEqual([...next.people].sort());
          for (let each = at; each < next.at; each += HOUR) {
            const was = slowly(roster, each);
            if (each > at) expect(was.every((person) => slowly(roster, each - HOUR).includes(person))).toBe(true);
          }
        }
      }),
      { numRuns: 200 },
    );
    expect(met.somebody).toBeGreaterThan(30);
  });

  it('changes where others are on duty than before, and nowhere else', () => {
    const met = { same: 0, changed: 0 };
    fc.assert(
      fc.property(rosters, swap, (roster, more) => {
        const to = MONDAY + DAYS * 24 * HOUR;
        const after = { ...roster, swaps: [...roster.swaps, more] };
        const changes = changedDuties(
          dutiesBetween(roster, CALENDAR, MONDAY, to),
          dutiesBetween(after, CALENDAR, MONDAY, to),
        );
        for (const at of HOURS) {
          const [was, is] = [slowly(roster, at), slowly(after, at)];
          const found = changes.filter(({ from, to: end }) => from <= at && at < end);
          const isSame = `${was}` === `${is}`;
          expect(found.map(({ before, after: then }) => [before, then])).toEqual(isSame ? [] : [[was, is]]);
          met[isSame ? 'same' : 'changed'] += 1;
        }
      }),
      { numRuns: 60 },
    );
    expect(Math.min(met.same, met.changed)).toBeGreaterThan(50);
  });

  it('stands in its week and day by the clock of the roster, each minute once', () => {
    fc.assert(
      fc.property(rosters, (roster) => {
        const at = MONDAY + 3 * 24 * HOUR;
        const duties = dutiesBetween(roster, CALENDAR, MONDAY, MONDAY + DAYS * 24 * HOUR);
        const weeks = weeksFrom(duties, { at, zone: roster.zone, weeks: 2 });
        expect(weeks.map((days) => days.length)).toEqual([7, 7]);
        expect(weeks[0]?.[0]?.day).toBe('2026-10-19');
        let sum = 0;
        for (const { day, parts } of weeks.flat())
          for (const { of, from, to } of parts) {
            expect([shown(from, roster.zone).slice(0, 10), shown(to - 1, roster.zone).slice(0, 10)]).toEqual([
              day,
              day,
            ]);
            expect(of.from <= from && to <= of.to).toBe(true);
            sum += to - from;
          }
        // What lies before that Monday by the clock of the roster is in no week that is shown.
        const minutes = duties.flatMap(({ from, to }) =>
          Array.from({ length: (to - from) / HOUR }, (_, hour) => shown(from + hour * HOUR, roster.zone)),
        );
        expect(sum / HOUR).toBe(minutes.filter((clockTime) => clockTime >= '2026-10-19').length);
      }),
      { numRuns: 60 },
    );
  });
});
