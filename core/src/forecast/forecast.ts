import { dateAt, openBetween } from '../deadline/index.ts';
import type { Change } from './change.ts';
import { type Learned, learn, type Pace, stationsOf } from './learn.ts';
import type { DeskPast } from './life.ts';
import { hasMuch, inHand } from './load.ts';
import type { Outlook } from './outlook.ts';
import { ownOutlooks } from './own.ts';
import { Runs } from './runs.ts';
import { isAway } from './stations.ts';

const DAY = 86_400_000;
/** How far is looked ahead, ms. */
export const LOOKS_AHEAD = 21 * DAY;
/** The seed of all runs: the same desk at the same moment has the same forecast. */
const SEED = 20_261_123;
/** So many requests are gone through in all runs together, at most. */
const IN_ALL = 80_000;
const FEWEST_RUNS = 40;
const MOST_RUNS = 200;
/** How much longer a team works where that is tried, ms. */
export const LONGER = 2 * 3_600_000;
/** On so many of the next working days that is tried. */
const ON_DAYS = 4;
/** And can be tried on so many. */
const TRIED_DAYS = 10;
/** What helps less is not worth a word: requests that are not late by it. */
const WORTH = 0.1;
/** So many changes are looked at closely. */
const CLOSELY = 3;
/** So many of those who are away or have much in hand are looked at. */
const MOST_HANDED = 8;
/** From how likely on something is likely late. */
export const LIKELY = 0.5;

/** What would be so with something changed. */
export interface Tried {
  readonly change: Change;
  /** How likely each promise is late then, in the order of the outlooks; null as there. */
  readonly chances: readonly (number | null)[];
}

/** How a team does. */
export interface TeamNow {
  readonly team: string;
  readonly members: number;
  readonly here: number;
  /** How fast it takes up requests, and how fast it gets them done, beside as ever. */
  readonly takes: Pace;
  readonly finishes: Pace;
}

export const runsFor = (size: number): number =>
  Math.min(MOST_RUNS, Math.max(FEWEST_RUNS, Math.floor(IN_ALL / Math.max(1, size))));

/**
 * What is likely to become of what is open at a desk, and what would help.
 *
 * @example const { outlooks } = new Forecast(desk);
 */
export class Forecast {
  private readonly learned: Learned;
  private readonly runs: Runs;
  private readonly longerBy: readonly (readonly Longer[])[];
  /** How often the days ahead are gone through. */
  readonly times: number;
  /** What is likely to become of each promise. */
  readonly outlooks: readonly Outlook[];

  constructor(readonly desk: DeskPast) {
    const until = desk.now + LOOKS_AHEAD;
    this.learned = learn(desk, stationsOf(desk, until));
    this.longerBy = desk.crews.map(({ team }) => longerDays(desk, team));
    this.runs = new Runs(desk, this.learned, until, this.longerBy.flat());
    this.times = runsFor(this.runs.size);
    this.outlooks = [...this.runs.run({ runs: this.times, seed: SEED }), ...ownOutlooks(desk, this.learned, until)];
  }

  /** How many requests that are finished it was learned from. */
  get from(): number {
    return this.learned.from;
  }

  /** How the teams do that something is open of. */
  get teams(): readonly TeamNow[] {
    return teamsOf(this.desk, this.learned);
  }

  /** What would help most, first. */
  helps(): readonly Tried[] {
    const { desk, runs, outlooks, times } = this;
    const few = Math.max(12, Math.floor(times / 5));
    const before = runs.run({ runs: few, seed: SEED });
    const look = (change: Change): Looked => {
      const after = runs.run({ runs: few, seed: SEED, change }).map(({ chance }) => chance);
      return { change, helps: fewerLate(before, after) };
    };
    const looked = [
      ...helpful([...handOvers(desk), ...decisions(desk, outlooks)].map(look)),
      ...longerTimes(this.longerBy, desk, outlooks, look),
    ];
    return helpful(looked)
      .sort((a, b) => b.helps - a.helps)
      .slice(0, CLOSELY)
      .map(({ change }) => this.with(change))
      .map((tried) => ({ tried, helps: fewerLate(outlooks, tried.chances) }))
      .filter(({ helps }) => helps >= WORTH)
      .sort((a, b) => b.helps - a.helps)
      .map(({ tried }) => tried);
  }

  /** The days on which it can be tried that a team works longer. */
  daysFor(team: string): readonly string[] {
    return daysOf(this.desk, team, TRIED_DAYS).map(([day]) => day);
  }

  /** That a team works longer on a day, by so much time (ms); null where it does not work on that day. */
  longer(team: string, day: string, by: number): Change | null {
    const [, from] = daysOf(this.desk, team, TRIED_DAYS).find(([each]) => each === day) ?? [];
    return from === undefined ? null : { do: 'longer', team, from, to: from + by };
  }

  /** What would be so with one thing changed. */
  with(change: Change): Tried {
    const { runs, outlooks, times } = this;
    const isKnown = change.do !== 'longer' || this.longerBy.flat().some((each) => includes(each, change));
    const road = isKnown ? runs : new Runs(this.desk, this.learned, this.desk.now + LOOKS_AHEAD, [change]);
    const after = road.run({ runs: times, seed: SEED, change });
    // Of what was changed nothing is said of the others: they are as they were.
    const chances = outlooks.map(({ chance }, place) => (chance === null ? null : (after[place]?.chance ?? chance)));
    return { change, chances };
  }
}

/** How many fewer promises are late, on average, where these are the chances in place of those before; null: as before. */
export const fewerLate = (before: readonly Outlook[], chances: readonly (number | null)[]): number =>
  before.reduce(
    (sum, { isLate, chance }, place) => (isLate || chance === null ? sum : sum + chance - (chances[place] ?? chance)),
    0,
  );

const includes = (one: Longer, other: Longer): boolean =>
  one.team === other.team && one.from <= other.from && one.to >= other.to;

type Longer = Change & { readonly do: 'longer' };

/** The next working days of a team (`YYYY-MM-DD`), with when it stops working on them, epoch ms. */
function daysOf(
  { calendars, crews, now }: DeskPast,
  team: string,
  most: number,
): readonly (readonly [string, number])[] {
  const calendar = calendars[crews.find((crew) => crew.team === team)?.calendar ?? ''];
  if (!calendar) return [];
  const ends = new Map<string, number>();
  for (const { from, to } of openBetween(calendar, now, now + 2 * most * DAY))
    ends.set(dateAt(from, calendar.zone), to);
  return [...ends].slice(0, most);
}

const longerDays = (desk: DeskPast, team: string): Longer[] =>
  daysOf(desk, team, ON_DAYS).map(([, from]) => ({ do: 'longer', team, from, to: from + LONGER }));

/** Those who are away or have far more in hand than the others of their team. */
function handOvers({ lives, crews, away, now }: DeskPast): Change[] {
  const has = inHand(lives);
  const all = inHand(lives, ['working', 'paused']);
  const isMuch = (person: string): boolean =>
    crews.some(({ members }) => members.includes(person) && hasMuch(person, members, has));
  return [...all]
    .filter(([person]) => isAway(away, person, now) || isMuch(person))
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST_HANDED)
    .map(([person]) => ({ do: 'hand-over', person }));
}

/** The forms of which something that is likely late waits for a decision. */
function decisions({ lives }: DeskPast, outlooks: readonly Outlook[]): Change[] {
  const likely = new Set(outlooks.flatMap(({ id, chance }) => ((chance ?? 0) >= WORTH ? [id] : [])));
  const forms = lives.flatMap((life) =>
    life.finished === null && life.stretches.at(-1)?.place === 'deciding' && likely.has(life.id) ? [life.form] : [],
  );
  return [...new Set(forms)].map((form) => ({ do: 'decide', form }));
}

interface Looked {
  readonly change: Change;
  readonly helps: number;
}

const helpful = (looked: readonly Looked[]): Looked[] => looked.filter(({ helps }) => helps >= WORTH / 2);

/** The day on which it helps most that a team works longer, of the teams that have something to win by it. */
function longerTimes(
  longer: readonly (readonly Longer[])[],
  { lives }: DeskPast,
  outlooks: readonly Outlook[],
  look: (change: Change) => Looked,
): Looked[] {
  const teams = new Map(lives.map((life) => [life.id, life.stretches.at(-1)?.team]));
  const risks = new Map<string, number>();
  for (const { id, chance, isLate } of outlooks) {
    const team = teams.get(id) ?? '';
    if (!isLate) risks.set(team, (risks.get(team) ?? 0) + (chance ?? 0));
  }
  const atRisk = longer
    .map((days) => ({ days, risk: risks.get(days[0]?.team ?? '') ?? 0 }))
    .filter(({ risk }) => risk >= 2 * WORTH)
    .sort((a, b) => b.risk - a.risk)
    .slice(0, CLOSELY);
  return atRisk.flatMap(({ days }) =>
    helpful(days.map(look))
      .sort((a, b) => b.helps - a.helps)
      .slice(0, 1),
  );
}

function teamsOf({ lives, crews, away, now }: DeskPast, { pace }: Learned): TeamNow[] {
  const open = new Set(lives.flatMap((life) => (life.finished === null ? (life.stretches.at(-1)?.team ?? []) : [])));
  return crews.flatMap(({ team, members }) => {
    if (!open.has(team)) return [];
    const here = members.filter((person) => !isAway(away, person, now)).length;
    const paces = { takes: pace('waiting', team), finishes: pace('working', team) };
    return [{ team, members: members.length, here, ...paces }];
  });
}
