import type { AnswerOf } from '@tolvek/contract';
import { type DeadlineRule, deadlineName, FINISH } from '@tolvek/core/deadline';
import {
  changeInWords,
  Forecast,
  type ForecastNames,
  fewerLate,
  forecastPast,
  LIKELY,
  type Outlook,
  type Scored,
  scoreOf,
  type Tried,
  whyLate,
} from '@tolvek/core/forecast';
import type { Viewer } from '@tolvek/core/people';
import { type Said, said } from '@tolvek/words';
import { LRUCache } from 'lru-cache';
import { formById, planningOf, releaseInForce } from '../form/queries.ts';
import { groupNames, personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { wrongFields } from '../platform/problem.ts';
import { type OpenRequest, openAtDesk } from '../request/open.ts';
import type { ShownRow } from '../request/queries.ts';
import { keptBy } from '../view/keptBy.ts';
import { tellingOf } from '../view/telling.ts';
import { Known } from './known.ts';
import { pastOf, stateOf } from './past.ts';

type Told = AnswerOf<'forecast'>;

/** From how likely on it is told of a request. */
const MAYBE = 0.2;
/** So many requests are told of at most. */
const MOST_TOLD = 40;
/** So many of those that something helps are named. */
const MOST_HELPED = 5;
/** What helps a request less is not worth naming it. */
const HELPED = 0.05;
/** What can become of a request, the worst first. */
const WORST = ['late', 'likely', 'beyond', 'inTime'] as const;
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

/** The last forecasts: as long as nothing happens at the desk, and for a few minutes. */
const forecasts = new LRUCache<string, Forecast>({ max: 2 });
const scores = new LRUCache<string, readonly Scored[]>({ max: 2 });

/** Which desk it is: a thread works for all of a process. */
const whichDesk = (db: Reader): string => ('$client' in db ? db.$client.name : '');

function forecastAt(db: Reader, now: number): Forecast {
  const key = `${whichDesk(db)} ${stateOf(db)} ${Math.floor(now / (5 * MINUTE))}`;
  let found = forecasts.get(key);
  if (!found) forecasts.set(key, (found = new Forecast(pastOf(db, now))));
  return found;
}

/** What became of past forecasts is the same for a day: yesterday stays as it was. */
function scoredAt(db: Reader, now: number): readonly Scored[] {
  const key = `${whichDesk(db)} ${Math.floor(now / (24 * HOUR))}`;
  let found = scores.get(key);
  if (!found) scores.set(key, (found = forecastPast(pastOf(db, now))));
  return found;
}

const idsIn = (some: readonly { readonly id: string }[]): string[] => some.map(({ id }) => id);

function namesOf(db: Reader): ForecastNames & { readonly groups: ReadonlyMap<string, string> } {
  const groups = groupNames(db);
  return {
    groups,
    person: (id) => personNamed(db, id),
    team: (key) => groups.get(key) ?? key,
    form: (id) => releaseInForce(db, id)?.design.title ?? formById(db, id)?.key ?? '',
  };
}

/** What will probably be late of what somebody works on. `now`: epoch ms. */
export function forecastFor(db: Reader, now: number, viewer: Viewer): Told {
  const forecast = forecastAt(db, now);
  const { desk, outlooks } = forecast;
  const known = new Known(db, viewer, idsIn(forecast.outlooks));
  const theirs = outlooks.filter((each) => known.may(each));
  const lives = new Map(desk.lives.map((life) => [life.id, life]));
  const names = namesOf(db);
  const why = whyLate(forecast, names);
  const maybe = theirs
    .filter(({ isLate, chance }) => !isLate && chance !== null && chance >= MAYBE)
    .sort((a, b) => (b.chance ?? 0) - (a.chance ?? 0) || a.due - b.due);
  const ofTeams = new Map<string, number>();
  for (const id of new Set(theirs.map((each) => each.id))) {
    const team = known.of(id)?.request.team ?? '';
    ofTeams.set(team, (ofTeams.get(team) ?? 0) + 1);
  }
  return {
    at: iso(desk.now),
    ...countsOf(theirs),
    from: forecast.from,
    requests: maybe.slice(0, MOST_TOLD).flatMap((outlook) => {
      const open = known.of(outlook.id);
      const life = lives.get(outlook.id);
      return open && life ? [requestTold(db, open, outlook, { names, reasons: why(life, outlook) })] : [];
    }),
    more: Math.max(0, maybe.length - MOST_TOLD),
    teams: forecast.teams.flatMap(({ team, members, here, takes, finishes }) => {
      const open = ofTeams.get(team) ?? 0;
      if (open === 0) return [];
      const days = [...forecast.daysFor(team)];
      return [{ key: team, name: names.team(team), open, members, here, takes, finishes, days }];
    }),
  };
}

/** How many requests there are of each, by the worst of what each was promised. */
function countsOf(theirs: readonly Outlook[]): Pick<Told, 'open' | (typeof WORST)[number]> {
  const is = new Map<string, (typeof WORST)[number]>();
  for (const { id, isLate, chance } of theirs) {
    const now = isLate ? 'late' : chance === null ? 'beyond' : chance >= LIKELY ? 'likely' : 'inTime';
    const before = is.get(id);
    if (!before || WORST.indexOf(now) < WORST.indexOf(before)) is.set(id, now);
  }
  const count = (which: (typeof WORST)[number]): number => [...is.values()].filter((each) => each === which).length;
  return {
    ...{ open: is.size, late: count('late'), likely: count('likely') },
    ...{ inTime: count('inTime'), beyond: count('beyond') },
  };
}

function requestTold(
  db: Reader,
  open: OpenRequest<ShownRow>,
  outlook: Outlook,
  { names, reasons }: { readonly names: ReturnType<typeof namesOf>; readonly reasons: readonly Said[] },
): Told['requests'][number] {
  const { request, register } = open;
  return {
    ...{ number: request.number, subject: open.subject, team: keptBy(request, register, names.groups) },
    handler: request.handlerId === null ? null : names.person(request.handlerId),
    chance: outlook.chance ?? 0,
    ...outlookTold(db, request, outlook, reasons),
  };
}

function outlookTold(
  db: Reader,
  request: ShownRow,
  { key, due, finish, isStill }: Outlook,
  reasons: readonly Said[],
): Pick<Told['requests'][number], 'dueFor' | 'due' | 'finish' | 'reasons'> {
  const rule = ruleNamed(db, request, key);
  const at = (moment: number | null): string | null => (moment === null ? null : iso(moment));
  return {
    dueFor: rule && rule.key !== FINISH ? deadlineName(rule) : null,
    due: isStill ? null : iso(due),
    finish: { early: at(finish.early), likely: at(finish.likely), late: at(finish.late) },
    reasons: [...reasons],
  };
}

/**
 * What is likely to become of what a request was promised; nothing for things, and when it is finished.
 *
 * @throws Problem 404 for whoever does not work on it.
 */
export function requestForecastFor(
  db: Reader,
  now: number,
  viewer: Viewer,
  number: string,
): AnswerOf<'requestForecast'> {
  const { request, reading } = openAtDesk(db, viewer, number, 'sheet');
  const forecast = forecastAt(db, now);
  const life = forecast.desk.lives.find(({ id, finished }) => id === request.id && finished === null);
  const why = whyLate(forecast, namesOf(db));
  return {
    at: iso(forecast.desk.now),
    promised: forecast.outlooks.flatMap((outlook) =>
      life && outlook.id === request.id && tellingOf(db, request, outlook.key).every((sink) => reading.mayHear(sink))
        ? [
            {
              ...outlookTold(db, request, outlook, why(life, outlook)),
              ...{ late: outlook.isLate, chance: outlook.chance },
            },
          ]
        : [],
    ),
  };
}

const ruleNamed = (db: Reader, request: ShownRow, key: string): DeadlineRule | undefined =>
  planningOf(db, request).release.design.deadline.deadlines.find((rule) => rule.key === key);

/** What would help most, for what somebody works on. */
export function helpsFor(db: Reader, now: number, viewer: Viewer): AnswerOf<'forecastHelps'> {
  const forecast = forecastAt(db, now);
  const known = new Known(db, viewer, idsIn(forecast.outlooks));
  const names = namesOf(db);
  return {
    changes: helpsOnce(forecast)
      .map((tried) => ({ ...triedTold(forecast, tried, known), ...wordsOf(tried, names) }))
      .filter(({ helped }) => helped.length > 0)
      .sort((a, b) => b.fewer - a.fewer),
  };
}

const wordsOf = ({ change }: Tried, names: ForecastNames) => ({ do: change.do, what: changeInWords(change, names) });

/** Reckoned once for a forecast, whoever looks. */
const helps = new WeakMap<Forecast, readonly Tried[]>();
function helpsOnce(forecast: Forecast): readonly Tried[] {
  let found = helps.get(forecast);
  if (!found) helps.set(forecast, (found = forecast.helps()));
  return found;
}

/** What a change would do to what somebody works on. */
function triedTold({ outlooks }: Forecast, tried: Tried, known: Known): AnswerOf<'forecastTried'> {
  const theirs = outlooks.flatMap((outlook, place) => (known.may(outlook) ? [{ outlook, place }] : []));
  const helped = theirs.flatMap(({ outlook: { id, isLate, chance }, place }) => {
    const after = tried.chances[place] ?? null;
    const number = known.of(id)?.request.number;
    return isLate || chance === null || after === null || number === undefined || chance - after < HELPED
      ? []
      : [{ number, before: chance, after }];
  });
  return {
    fewer: fewerLate(
      theirs.map(({ outlook }) => outlook),
      theirs.map(({ place }) => tried.chances[place] ?? null),
    ),
    helped: helped.sort((a, b) => b.before - b.after - (a.before - a.after)).slice(0, MOST_HELPED),
  };
}

/**
 * What would be so if a team worked longer on a day.
 *
 * @throws Problem 422 where they work on nothing of the team, or it does not work on that day.
 */
export function triedFor(
  db: Reader,
  now: number,
  viewer: Viewer,
  { team, day, hours }: { readonly team: string; readonly day: string; readonly hours: number },
): AnswerOf<'forecastTried'> {
  const forecast = forecastAt(db, now);
  const known = new Known(db, viewer, idsIn(forecast.outlooks));
  const isTheirs = forecast.outlooks.some((each) => known.may(each) && known.of(each.id)?.request.team === team);
  if (!isTheirs)
    throw wrongFields([{ field: 'team', message: said('forecast:noTeam'), fix: said('forecast:noTeamFix') }]);
  const change = forecast.longer(team, day, hours * HOUR);
  if (!change) throw wrongFields([{ field: 'day', message: said('forecast:noDay'), fix: said('forecast:noDayFix') }]);
  return triedTold(forecast, forecast.with(change), known);
}

/** How right past forecasts were, of what somebody works on. */
export function scoreFor(db: Reader, now: number, viewer: Viewer): AnswerOf<'forecastScore'> {
  const scored = scoredAt(db, now);
  const known = new Known(db, viewer, idsIn(scored));
  const { bands, ...score } = scoreOf(scored.filter((each) => known.may(each)));
  return { ...score, bands: [...bands] };
}
