import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  afterQuiet,
  CHOICES,
  type DeskHearing,
  goingOf,
  HEARD,
  type Hearing,
  heardAs,
  NEW_HEARING,
  nextDigest,
  USUAL_HEARING,
  WAYS,
  wayOf,
  waysFor,
} from './index.ts';

const ZONE = 'Europe/Dublin';
const MINUTE = 60_000;
/** What a clock at the desk shows, read another way: day of the week from 1, and time. */
const clock = new Intl.DateTimeFormat('en-GB', {
  ...{ timeZone: ZONE, weekday: 'short', hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
});
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
function shown(at: number): { day: number; time: string } {
  const parts = Object.fromEntries(clock.formatToParts(at).map(({ type, value }) => [type, value] as const));
  return { day: DAYS.indexOf(parts.weekday ?? '') + 1, time: `${parts.hour}:${parts.minute}` };
}
// Weeks in which the clock is put back and put on are among them.
const moments = fc.oneof(
  ...['2026-10-22T00:00:00Z', '2026-11-20T00:00:00Z', '2027-03-25T00:00:00Z'].map((from) =>
    fc.integer({ min: 0, max: 7 * 24 * 60 }).map((minutes) => Date.parse(from) + minutes * MINUTE),
  ),
);
/** Clock times that are shown once on every day. */
const times = fc
  .tuple(fc.integer({ min: 3, max: 23 }), fc.integer({ min: 0, max: 59 }))
  .map(([hour, minute]) => `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`);
const hearings: fc.Arbitrary<Hearing> = fc.record({
  ways: fc.constant({}),
  digest: fc.record({ at: times, days: fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }) }),
  quiet: fc.option(fc.record({ from: times, to: times })),
});

describe('when somebody hears of something', () => {
  it('is the first minute at which a clock at the desk says so, read minute by minute', () => {
    const seen = { digest: 0, quiet: 0, night: 0, now: 0, urgent: 0 };
    fc.assert(
      fc.property(hearings, moments, fc.constantFrom(...WAYS), fc.boolean(), (hearing, now, way, isUrgent) => {
        const { digest, quiet } = hearing;
        const isQuiet = (at: number): boolean => {
          if (!quiet || quiet.from === quiet.to) return false;
          const { time } = shown(at);
          return quiet.from < quiet.to ? time >= quiet.from && time < quiet.to : time >= quiet.from || time < quiet.to;
        };
        const going = goingOf(way, hearing, { now, zone: ZONE, isUrgent });
        if (way === 'never') {
          expect(going).toBe(null);
          return;
        }
        let at = now;
        const waits = way === 'digest' && !isUrgent;
        if (waits) {
          do at += MINUTE;
          while (shown(at).time !== digest.at || !digest.days.includes(shown(at).day));
          seen.digest += 1;
        }
        if (isQuiet(at)) seen[quiet && quiet.from > quiet.to ? 'night' : 'quiet'] += 1;
        while (isQuiet(at)) at += MINUTE;
        expect(new Date(going?.at ?? 0).toISOString()).toBe(new Date(at).toISOString());
        expect(going?.isGathered).toBe(at > now);
        seen.now += Number(at === now);
        seen.urgent += Number(way === 'digest' && isUrgent);
      }),
      { numRuns: 300 },
    );
    console.log('when emails go', seen);
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(5);
  });

  it('is a moment later for what comes just then, and now where there is no day for a digest', () => {
    const eight = Date.parse('2026-11-23T08:00:00Z');
    expect(nextDigest(USUAL_HEARING, eight, ZONE)).toBe(eight + 24 * 60 * MINUTE);
    expect(nextDigest(USUAL_HEARING, eight - 1, ZONE)).toBe(eight);
    expect(nextDigest({ digest: { at: '08:00', days: [] } }, eight, ZONE)).toBe(eight);
    expect(afterQuiet({ quiet: { from: '22:00', to: '22:00' } }, eight, ZONE)).toBe(eight);
  });

  it('is chosen where the desk lets them, and only so far', () => {
    for (const heard of HEARD)
      for (const choice of CHOICES)
        for (const way of WAYS)
          for (const chosen of [undefined, ...WAYS]) {
            const desk: DeskHearing = { ...NEW_HEARING, [heard]: { way, choice } };
            const is = wayOf(heard, { ways: chosen ? { [heard]: chosen } : {} }, desk);
            expect(is === way || (is === chosen && choice !== 'none')).toBe(true);
            if (chosen === 'never' && choice !== 'whether') expect(is).toBe(way);
            if (chosen && waysFor(desk[heard]).includes(chosen)) expect(is).toBe(chosen);
          }
  });

  it('is of some kind for all that is told of requests, and of none for what was asked for just now', () => {
    expect(heardAs('message', true)).toBe('own');
    expect(heardAs('message', false)).toBe('mine');
    expect(
      (['confirm', 'go-on', 'invitation', 'reset', 'sign-in', 'new-link', 'test', 'duty'] as const).map((kind) =>
        heardAs(kind, false),
      ),
    ).toEqual(Array.from({ length: 8 }, () => null));
    const heard = new Set(
      (['approval-asked', 'assigned', 'new-request', 'reminder', 'escalation', 'news', 'received'] as const).map(
        (kind) => heardAs(kind, false),
      ),
    );
    expect([...heard].sort()).toEqual([...HEARD].sort());
  });
});
