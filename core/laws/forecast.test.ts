import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Away,
  type DeskPast,
  Forecast,
  fewerLate,
  forecastPast,
  type Life,
  type Scored,
  type Stretch,
  scoreOf,
} from '../src/forecast/index.ts';
import { asOf } from '../src/forecast/life.ts';
import { IS_LONG, often } from './often.ts';
import { BEGINS, NINE_TO_FIVE, type PlainDesk, playDesk } from './plainDesk.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** Numbers from 0 to 1 by a rule of its own (a linear congruence, after Park and Miller 1988). */
function numbers(seed: number): () => number {
  let state = seed * 7_919 + 1;
  return () => {
    state = (state * 16_807) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

/** Desks that are different: with time to spare, at their limit, and with somebody away for the last weeks. */
const DESKS: readonly Omit<PlainDesk, 'random' | 'days'>[] = [
  { teams: [2, 4], each: 1.5, hours: [2, 6], promised: [8, 16] },
  { teams: [3, 2], each: 1.4, hours: [2, 6], promised: [12, 24] },
  { teams: [2, 4], each: 1.6, hours: [3, 5], promised: [10, 20], away: [{ team: 0, person: 0, from: 95, to: 130 }] },
  { teams: [5], each: 1.3, hours: [1, 4, 9], promised: [6, 12, 24] },
];

describe('a forecast', () => {
  it('comes true more often than simple guesses, at desks that work otherwise than it thinks', {
    timeout: 240_000,
  }, () => {
    const all: Scored[] = [];
    for (let place = 0; place < often(10); place += 1) {
      const desk = DESKS[place % DESKS.length] as (typeof DESKS)[number];
      const scored = forecastPast(playDesk({ ...desk, random: numbers(place + 1), days: 120 }));
      const { score, noneLate, asUsual, forecasts, late } = scoreOf(scored);
      console.log(
        `desk ${place}: ${forecasts} forecasts, ${late} late; error ${score.toFixed(3)}, none late ${noneLate.toFixed(3)}, as usual ${asUsual.toFixed(3)}`,
      );
      // Where hardly anything was late, chance decides which is nearer.
      if (late >= 30) expect(score).toBeLessThan(Math.min(noneLate, asUsual));
      all.push(...scored);
    }
    const { bands, score, noneLate, asUsual } = scoreOf(all);
    expect(score).toBeLessThan(0.75 * Math.min(noneLate, asUsual));
    console.log(bands.map(({ count, said, late }) => `${count} said ${said.toFixed(2)}, ${late} late`).join('; '));
    // What is said comes true as often as it is said, as far as that can be told from so many.
    const told = bands.filter(({ count }) => count >= (IS_LONG ? 200 : 60));
    for (const { count, said, late } of told) expect(Math.abs(said - late / count)).toBeLessThan(IS_LONG ? 0.15 : 0.25);
    expect(told.length).toBeGreaterThan(4);
  });

  it('looks ahead at nothing: what happened later changes none of what was said before', { timeout: 60_000 }, () => {
    const desk = playDesk({
      teams: [2, 3],
      each: 1.6,
      hours: [2, 6],
      promised: [8, 16],
      random: numbers(9),
      days: 110,
    });
    const cut = desk.now - 8 * DAY;
    const known = { ...desk, lives: desk.lives.flatMap((life) => asOf(life, cut) ?? []) };
    const said = (some: readonly Scored[]) =>
      new Map(
        some.filter(({ back }) => back >= 8).map(({ id, key, back, chance }) => [`${id} ${key} ${back}`, chance]),
      );
    const [whole, part] = [said(forecastPast(desk)), said(forecastPast(known))];
    const both = [...part].filter(([each]) => whole.has(each));
    expect(both.length).toBeGreaterThan(100);
    for (const [each, chance] of both) expect([each, whole.get(each)]).toEqual([each, chance]);
  });

  it('is the same for the same desk, and a change of one team leaves the others as they were', {
    timeout: 60_000,
  }, () => {
    const desk = playDesk({
      teams: [2, 4],
      each: 1.7,
      hours: [2, 6],
      promised: [8, 16],
      random: numbers(5),
      days: 100,
    });
    const one = new Forecast(desk);
    expect(one.outlooks.length).toBeGreaterThan(5);
    expect(new Forecast(desk).outlooks).toEqual(one.outlooks);
    const teams = new Map(desk.lives.map((life) => [life.id, life.stretches.at(-1)?.team]));
    const day = one.daysFor('t0')[0] ?? '';
    const longer = one.longer('t0', day, 4 * HOUR);
    expect(longer).not.toBeNull();
    if (!longer) return;
    const { chances } = one.with(longer);
    for (const [place, { id, chance }] of one.outlooks.entries())
      if (teams.get(id) !== 't0') expect(chances[place]).toBe(chance);
    expect(fewerLate(one.outlooks, one.with(longer).chances)).toBeGreaterThanOrEqual(-0.5);
    expect(one.longer('t0', '2026-01-10', HOUR)).toBeNull();
  });
});

/** A desk where all is known: one person works, on one after the other, and each takes as long as all before. */
function steadyDesk(
  takes: number,
  open: readonly { had: number; promised: number }[],
  away: readonly Away[] = [],
): DeskPast {
  const stretch = (place: Stretch['place'], from: number, to: number | null): Stretch => ({
    ...{ place, from, to, team: 't', handler: place === 'working' ? 'ann' : null },
  });
  const life = (id: string, arrived: number, finished: number | null, promised: number): Life => ({
    ...{ id, form: 'f', row: 'r', calendar: 'plain', arrived, finished },
    stretches: [stretch('working', arrived, finished)],
    promised: [
      {
        ...{ key: 'finish', start: arrived, due: 0, calendar: 'plain', span: { time: promised * HOUR } },
        ...{ stands: true, pauses: [], ends: 'finished', over: null },
      },
    ],
  });
  // Twenty mornings, one request on each: from nine, as many hours as all take. The last days it is quiet.
  const mornings = Array.from({ length: 28 }, (_, day) => BEGINS + day * DAY).filter(
    (at) => new Date(at).getUTCDay() % 6 !== 0,
  );
  const past = mornings.map((at, place) => life(`p${place}`, at, at + takes * HOUR, 8));
  const now = BEGINS + 42 * DAY + 7 * HOUR;
  return {
    ...{ now, calendars: { plain: NINE_TO_FIVE }, away },
    crews: [{ team: 't', calendar: 'plain', members: ['ann', 'bo'] }],
    lives: [...past, ...open.map(({ had, promised }, place) => life(`o${place}`, now - had * HOUR, null, promised))],
  };
}

/** The moment so many hours of work after another, from nine to five on weekdays, read minute by minute. */
function slowly(from: number, hours: number): number {
  let left = Math.round(hours * 60);
  let at = from;
  while (left > 0) {
    const date = new Date(at);
    if (date.getUTCDay() % 6 !== 0 && date.getUTCHours() >= 9 && date.getUTCHours() < 17) left -= 1;
    at += 60_000;
  }
  return at;
}

describe('where all is known', () => {
  it('what is left is what all took, less what it has had', () => {
    const met = { late: 0, inTime: 0, nextDay: 0 };
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.integer({ min: 0, max: 5 }),
        fc.integer({ min: 1, max: 20 }),
        (takes, had, promised) => {
          if (had >= takes) return;
          const desk = steadyDesk(takes, [{ had, promised }]);
          const [outlook] = new Forecast(desk).outlooks;
          const ends = slowly(desk.now, takes - had);
          const due = slowly(desk.now - had * HOUR, promised);
          if (outlook?.isLate) {
            expect(due).toBeLessThanOrEqual(desk.now);
            return;
          }
          // Steps of half an hour are gone through evenly.
          expect(Math.abs((outlook?.finish.likely ?? 0) - ends)).toBeLessThanOrEqual(16 * HOUR + 60_000);
          expect(outlook?.due).toBe(due);
          if (Math.abs(ends - due) <= HOUR) return;
          expect(outlook?.chance).toBe(ends > due ? 1 : 0);
          met[ends > due ? 'late' : 'inTime'] += 1;
          met.nextDay += new Date(ends).getUTCDate() === new Date(desk.now).getUTCDate() ? 0 : 1;
        },
      ),
      { numRuns: often(150) },
    );
    console.log(JSON.stringify(met));
    expect(Math.min(met.late, met.inTime, met.nextDay)).toBeGreaterThan(3);
  });

  it('a promise with an end of its own is late as often as those were that had lasted as long', () => {
    const met = { some: 0, over: 0, kept: 0 };
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 12, maxLength: 25 }),
        fc.integer({ min: 0, max: 7 }),
        fc.integer({ min: 1, max: 30 }),
        (lasted, had, promised) => {
          const desk = steadyDesk(2, [{ had, promised: 40 }]);
          const first = (life: Life, time: number, over: number | null): Life => ({
            ...life,
            promised: [
              ...life.promised,
              {
                ...{ key: 'first', start: life.arrived, due: 0, calendar: 'plain', span: { time: time * HOUR } },
                ...{ stands: true, pauses: [], ends: 'itself', over },
              },
            ],
          });
          const like = desk.lives[0] as Life;
          const others = lasted.map((hours, place) => {
            const arrived = BEGINS + (place % 5) * DAY;
            const life = { ...like, id: `l${place}`, arrived, finished: slowly(arrived, hours) };
            const stretches = like.stretches.map((each) => ({ ...each, from: arrived, to: life.finished }));
            return first({ ...life, stretches }, promised, life.finished);
          });
          const open = desk.lives
            .filter(({ finished }) => finished === null)
            .map((life) => first(life, promised, null));
          const { outlooks } = new Forecast({ ...desk, lives: [...others, ...open] });
          const own = outlooks.find(({ key }) => key === 'first');
          const longer = (than: number): number => lasted.filter((hours) => hours > than).length;
          if (promised < had) {
            met.over += 1;
            expect([own?.isLate, own?.chance]).toEqual([true, 1]);
          } else if (longer(had) > 0 && longer(promised) > 0) {
            met.some += 1;
            expect(own?.chance).toBeCloseTo(longer(promised) / longer(had), 1);
          } else met.kept += 1;
        },
      ),
      { numRuns: often(120) },
    );
    console.log(JSON.stringify(met));
    expect(Math.min(met.some, met.over, met.kept)).toBeGreaterThan(1);
  });

  it('whoever is away does nothing until they are back, and handing over helps', () => {
    const away = [{ person: 'ann', from: 0, to: null }];
    const desk = { ...steadyDesk(2, [{ had: 1, promised: 16 }]), away };
    const forecast = new Forecast(desk);
    expect(forecast.outlooks.map(({ chance, finish }) => [chance, finish.likely])).toEqual([[1, null]]);
    const [best] = forecast.helps();
    expect(best?.change).toEqual({ do: 'hand-over', person: 'ann' });
    expect(best?.chances).toEqual([0]);
    const back = { ...desk, away: [{ person: 'ann', from: 0, to: desk.now + DAY }] };
    const [outlook] = new Forecast(back).outlooks;
    expect(outlook?.finish.early).toBeGreaterThanOrEqual(desk.now + DAY - 8 * HOUR);
  });
});
