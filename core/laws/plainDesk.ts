import type { WorkingCalendar } from '../src/deadline/index.ts';
import type { Away, Crew, DeskPast, Life, Promised, Stretch } from '../src/forecast/index.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const OPEN: readonly [from: string, to: string][] = [['09:00', '17:00']];

/** Open from nine to five, Monday to Friday, by the clock of UTC: so that what a law reckons by itself is plain. */
export const NINE_TO_FIVE: WorkingCalendar = {
  ...{ key: 'plain', name: 'Nine to five', zone: 'UTC', holidays: [] },
  week: [OPEN, OPEN, OPEN, OPEN, OPEN, [], []],
};
/** A Monday, at nine. */
export const BEGINS = Date.parse('2026-01-05T09:00:00Z');

export interface PlainDesk {
  readonly random: () => number;
  readonly days: number;
  /** How many people each team has. */
  readonly teams: readonly number[];
  /** How many requests a team gets on a working day for each of its people, on average. */
  readonly each: number;
  /** How many hours of somebody’s work a request takes, on average, by its row. */
  readonly hours: readonly number[];
  /** How long each is promised, in hours of work, by its row. */
  readonly promised: readonly number[];
  /** Who is away, by number in their team, with days since the beginning. */
  readonly away?: readonly {
    readonly team: number;
    readonly person: number;
    readonly from: number;
    readonly to: number;
  }[];
}

interface Job {
  readonly id: string;
  readonly team: number;
  readonly row: number;
  readonly arrived: number;
  left: number;
  decideBy: number;
  person: number;
  finished: number | null;
  readonly stretches: { place: Stretch['place']; from: number; to: number | null; handler: string | null }[];
}

const isOpen = (at: number): boolean => {
  const date = new Date(at);
  return date.getUTCDay() % 6 !== 0 && date.getUTCHours() >= 9 && date.getUTCHours() < 17;
};

/**
 * A desk as it may be, played quarter of an hour by quarter of an hour: requests arrive, some are decided first, each is
 * taken by whoever of its team has the least, and everybody works on one after the other, the oldest first. It shares
 * nothing with how a forecast sees a desk: there people work on all they have at once, and their time is reckoned.
 */
export function playDesk({ random, days, teams, each, hours, promised, away = [] }: PlainDesk): DeskPast {
  const open: Job[] = [];
  const all: Job[] = [];
  const isAway = (team: number, person: number, at: number): boolean =>
    away.some((one) => {
      const day = (at - BEGINS) / DAY;
      return one.team === team && one.person === person && one.from <= day && day < one.to;
    });
  const named = (team: number, person: number): string => `p${team}-${person}`;
  const goes = (job: Job, place: Stretch['place'], at: number): void => {
    const last = job.stretches.at(-1);
    if (last) last.to = at;
    job.stretches.push({ place, from: at, to: null, handler: job.person < 0 ? null : named(job.team, job.person) });
  };
  const now = BEGINS + days * DAY;
  for (let at = BEGINS; at < now; at += 15 * MINUTE) {
    if (!isOpen(at)) continue;
    for (const [team, people] of teams.entries()) {
      if (random() >= (each * people) / 32) continue;
      const row = Math.floor(random() * hours.length);
      const left = -Math.log(1 - random()) * (hours[row] ?? 1) * HOUR;
      const isDecided = random() < 0.3;
      const job: Job = {
        ...{ id: `r${all.length}`, team, row, arrived: at, left, finished: null, person: -1, stretches: [] },
        decideBy: isDecided ? at + random() * 12 * HOUR : 0,
      };
      goes(job, isDecided ? 'deciding' : 'waiting', at);
      open.push(job);
      all.push(job);
    }
    for (const job of open) {
      if (job.decideBy > 0 && job.decideBy <= at) {
        job.decideBy = 0;
        goes(job, 'waiting', at);
      } else if (job.decideBy === 0 && job.person < 0 && at - (job.stretches.at(-1)?.from ?? at) >= HOUR) {
        const here = Array.from({ length: teams[job.team] ?? 1 }, (_, person) => person).filter(
          (person) => !isAway(job.team, person, at),
        );
        const load = (person: number): number =>
          open.filter((other) => other.team === job.team && other.person === person).length;
        const [least] = here.sort((a, b) => load(a) - load(b));
        if (least === undefined) continue;
        job.person = least;
        goes(job, 'working', at);
      }
    }
    for (const [team, people] of teams.entries())
      for (let person = 0; person < people; person += 1) {
        if (isAway(team, person, at)) continue;
        const job = open.find((one) => one.team === team && one.person === person);
        if (!job) continue;
        job.left -= 15 * MINUTE;
        if (job.left > 0) continue;
        job.finished = at + 15 * MINUTE;
        const last = job.stretches.at(-1);
        if (last) last.to = job.finished;
        open.splice(open.indexOf(job), 1);
      }
  }
  const crews = teams.map(
    (people, team): Crew => ({
      ...{ team: `t${team}`, calendar: 'plain' },
      members: Array.from({ length: people }, (_, person) => named(team, person)),
    }),
  );
  const lives = all.map(({ id, team, row, arrived, finished, stretches }): Life => {
    const time = (promised[row] ?? 8) * HOUR;
    const promise: Promised = {
      ...{
        key: 'finish',
        start: arrived,
        due: 0,
        calendar: 'plain',
        span: { time },
        stands: true,
        pauses: [],
        ends: 'finished',
        over: null,
      },
    };
    return {
      ...{ id, form: `f${team}`, row: `${team} ${row}`, calendar: 'plain', arrived, finished, promised: [promise] },
      stretches: stretches.map((stretch) => ({ ...stretch, team: `t${team}` })),
    };
  });
  return {
    ...{ now, calendars: { plain: NINE_TO_FIVE }, crews, lives },
    away: away.map(
      ({ team, person, from, to }): Away => ({
        ...{ person: named(team, person), from: BEGINS + from * DAY, to: BEGINS + to * DAY },
      }),
    ),
  };
}
