import type { OpenHours, WorkingCalendar } from '@tolvek/core/deadline';
import { type DeskPast, Forecast, forecastPast, type Life, type Place, type Stretch } from '@tolvek/core/forecast';
import { seeded } from '@tolvek/demo';
import { type Figure, figure, ROUNDS } from './figure.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const NOW = Date.parse('2026-11-23T10:00:00Z');
const OPEN = 2_000;
const FINISHED = 4_000;
const TEAMS = 8;
const MEMBERS = 12;
const ROWS = 5;

const HOURS: readonly OpenHours[] = [
  ['08:00', '12:00'],
  ['13:00', '17:00'],
];
const calendar: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'Europe/Dublin', holidays: [] },
  week: [HOURS, HOURS, HOURS, HOURS, HOURS, [], []],
};

/** A desk of eight teams: what was finished in the last 120 days, and what is open now, at all places. */
function bigDesk(): DeskPast {
  const random = seeded(23);
  const person = (team: number): string => `p${team}-${Math.floor(random() * MEMBERS)}`;
  const stretch = (place: Place, from: number, to: number | null, team: number): Stretch => ({
    ...{ place, from, to, team: `t${team}`, handler: place === 'working' || place === 'paused' ? person(team) : null },
  });
  const life = (id: number, isOpen: boolean): Life => {
    const team = id % TEAMS;
    const arrived = NOW - random() * (isOpen ? 4 : 116) * DAY - HOUR;
    const places: readonly Place[] = random() < 0.2 ? ['deciding', 'waiting', 'working'] : ['waiting', 'working'];
    const stretches: Stretch[] = [];
    let from = arrived;
    const last = isOpen ? Math.floor(random() * places.length) : places.length - 1;
    for (const place of places.slice(0, last + 1)) {
      const to = from + (2 + random() * 20) * HOUR;
      stretches.push(stretch(place, from, isOpen && place === places[last] ? null : Math.min(to, NOW - 1), team));
      from = Math.min(to, NOW - 1);
    }
    return {
      ...{ id: `r${id}`, form: `f${team}`, row: `f${team} ${id % ROWS}`, calendar: 'desk', arrived, stretches },
      finished: isOpen ? null : from,
      promised: [
        {
          ...{ key: 'finish', start: arrived, due: 0, calendar: 'desk', span: { days: 3 + (id % 5) } },
          ...{ stands: true, pauses: [], ends: 'finished', over: null },
        },
      ],
    };
  };
  return {
    ...{ now: NOW, calendars: { desk: calendar } },
    crews: Array.from({ length: TEAMS }, (_, team) => ({
      ...{ team: `t${team}`, calendar: 'desk' },
      members: Array.from({ length: MEMBERS }, (_, member) => `p${team}-${member}`),
    })),
    away: Array.from({ length: TEAMS }, (_, team) => ({ person: `p${team}-0`, from: NOW - DAY, to: NOW + 5 * DAY })),
    lives: Array.from({ length: OPEN + FINISHED }, (_, id) => life(id, id < OPEN)),
  };
}

/** The same by hand for requests that wait for nobody: each goes from place to place by chance, as often as in a forecast. */
function byHand(desk: DeskPast, times: number): number {
  const random = seeded(5);
  const open = desk.lives.filter(({ finished }) => finished === null);
  const late = new Float64Array(open.length);
  const ends = open.map(() => new Float64Array(times));
  for (let run = 0; run < times; run += 1)
    for (const [place, { stretches, arrived }] of open.entries()) {
      let at = NOW;
      for (let left = stretches.at(-1)?.place === 'working' ? 1 : 2; left > 0; left -= 1)
        at -= Math.log(1 - random()) * 12 * HOUR;
      (ends[place] as Float64Array)[run] = at;
      if (at > arrived + 5 * DAY) late[place] = (late[place] as number) + 1;
    }
  for (const each of ends) each.sort();
  return late.reduce((sum, each) => sum + each, 0);
}

/**
 * Forecasting two thousand open requests, beside two seconds and beside a loop by hand in which none waits for another; and
 * what would help, and the last thirty days again.
 */
export function measureForecast(): Promise<readonly Figure[]> {
  const desk = bigDesk();
  const took = (does: () => unknown): number => {
    const began = performance.now();
    does();
    return performance.now() - began;
  };
  const forecast = new Forecast(desk);
  const rounds = Array.from({ length: ROUNDS }, () => ({
    ours: took(() => new Forecast(desk)),
    hand: took(() => byHand(desk, forecast.times)),
  }));
  const ours = rounds.map((each) => each.ours);
  const hand = rounds.map((each) => each.hand);
  const helps = Array.from({ length: 3 }, () => took(() => forecast.helps()));
  const name = `forecast of ${forecast.outlooks.length} open requests from ${FINISHED} finished, ms`;
  return Promise.resolve([
    figure(name, ours, [2_000], 1),
    figure(`${name} beside a loop by hand where none waits for another`, ours, hand, 15),
    figure('what would help most of them, ms', helps, [10_000], 1),
    figure('forecasts of the last 30 days again, ms', [took(() => forecastPast(desk))], [60_000], 1),
  ]);
}
