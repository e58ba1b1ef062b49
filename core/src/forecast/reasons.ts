import { type Said, said } from '@tolvek/words';
import { lengthOf, workingTimeBetween } from '../deadline/index.ts';
import type { Change } from './change.ts';
import type { Forecast, TeamNow } from './forecast.ts';
import type { Pace } from './learn.ts';
import { covers, type Life } from './life.ts';
import { hasMuch, inHand } from './load.ts';
import type { Outlook } from './outlook.ts';

/** How what a reason names is called now. */
export interface ForecastNames {
  readonly person: (id: string) => string;
  readonly team: (key: string) => string;
  readonly form: (id: string) => string;
}

const HALF_HOUR = 30 * 60_000;
/** A guess says no minutes. */
const inHalfHours = (length: number): number => Math.max(1, Math.round(length / HALF_HOUR)) * HALF_HOUR;
/** At this pace or slower it is worth a word. */
const SLOW = 0.75;

/** Prepares telling why requests are likely late: what is so of the desk is counted once. */
export function whyLate(
  { desk, teams }: Pick<Forecast, 'desk' | 'teams'>,
  names: ForecastNames,
): (life: Life, outlook: Outlook) => readonly Said[] {
  const has = inHand(desk.lives);
  const known = new Map(teams.map((team) => [team.team, team]));
  const crews = new Map(desk.crews.map((crew) => [crew.team, crew]));
  const mainCrew = (person: string) => desk.crews.find(({ members }) => members.includes(person));
  return (life, outlook) => {
    const last = life.stretches.at(-1);
    if (!last) return [];
    const { team, handler, place } = last;
    const isWorked = place === 'working' && handler !== null;
    const isTheirs = isWorked || (place === 'paused' && handler !== null);
    const person = isTheirs ? names.person(handler) : '';
    const pace = isWorked ? mainCrew(handler)?.team : team;
    const members = crews.get(team)?.members ?? [];
    if (outlook.ends === 'itself') return needs(life, outlook, desk);
    return [
      ...needs(life, outlook, desk),
      ...(isTheirs ? away(handler, person, desk) : []),
      ...(isWorked && hasMuch(handler, members, has)
        ? [said('forecast:hasMuch', { person, count: has.get(handler) ?? 0 })]
        : []),
      ...slow(place, known.get(pace ?? ''), names),
      ...(place === 'deciding' ? [said('forecast:isDecided')] : []),
      ...(place === 'paused' ? [said('forecast:standsStill')] : []),
    ];
  };
}

/** How much is still to come, beside how much is left. */
function needs(
  life: Life,
  { key, ends, finish, due, left: time }: Outlook,
  { calendars, now }: Forecast['desk'],
): readonly Said[] {
  const calendar = calendars[life.promised.find((each) => each.key === key)?.calendar ?? life.calendar];
  if (!calendar) return [];
  const left = lengthOf(Math.max(0, time ?? workingTimeBetween(calendar, now, due)), calendar);
  if (finish.likely === null) return [said(ends === 'itself' ? 'forecast:ownLong' : 'forecast:needsLong', { left })];
  const needed = lengthOf(inHalfHours(workingTimeBetween(calendar, now, finish.likely)), calendar);
  return [said(ends === 'itself' ? 'forecast:ownNeeds' : 'forecast:needs', { needed, left })];
}

function away(person: string, name: string, desk: Forecast['desk']): readonly Said[] {
  const absences = desk.away.filter((each) => each.person === person && covers(each, desk.now));
  if (absences.length === 0) return [];
  if (absences.some(({ left }) => left)) return [said('forecast:gone', { person: name })];
  const ends = absences.flatMap(({ to }) => to ?? []);
  return [
    ends.length < absences.length
      ? said('forecast:awayOpen', { person: name })
      : said('forecast:away', { person: name, until: Math.max(...ends) }),
  ];
}

function slow(place: string, team: TeamNow | undefined, names: ForecastNames): readonly Said[] {
  if (!team) return [];
  const [pace, takes]: readonly [Pace, boolean] =
    place === 'waiting'
      ? [team.takes, true]
      : place === 'working'
        ? [team.finishes, false]
        : [{ is: 1, did: 0, usually: 0 }, false];
  if (pace.is > SLOW) return [];
  const numbers = { team: names.team(team.team), did: pace.did, usually: Math.round(pace.usually) };
  return [takes ? said('forecast:takesSlowly', numbers) : said('forecast:finishesSlowly', numbers)];
}

/** What is changed, as something that somebody could do. */
export function changeInWords(change: Change, names: ForecastNames): Said {
  switch (change.do) {
    case 'longer':
      return said('forecast:longer', {
        ...{
          team: names.team(change.team),
          from: change.from,
          length: { minutes: (change.to - change.from) / 60_000 },
        },
      });
    case 'hand-over':
      return said('forecast:handOver', { person: names.person(change.person) });
    case 'decide':
      return said('forecast:decideSoon', { form: names.form(change.form) });
  }
}
