import { Temporal } from 'temporal-polyfill';
import { dateAt, wallClockAt } from '../deadline/index.ts';
import type { Departure, Recipient } from '../telling/index.ts';
import type { NoticeCause } from './cause.ts';
import type { Heard } from './heard.ts';

/** `digest`: with others in one email, at a time of their own. */
export const WAYS = ['at-once', 'digest', 'never'] as const;
export type Way = (typeof WAYS)[number];

/** What people may choose: nothing, when they hear of it, or also whether. */
export const CHOICES = ['none', 'when', 'whether'] as const;
export type Choice = (typeof CHOICES)[number];

/** How the desk sends emails of one kind: as it is while nobody has chosen otherwise, and what they may choose. */
export interface DeskWay {
  readonly way: Way;
  readonly choice: Choice;
}
export type DeskHearing = Readonly<Record<Heard, DeskWay>>;

/** How a new desk sends emails: each at once; nobody leaves out what they have to do. */
export const NEW_HEARING: DeskHearing = {
  decide: { way: 'at-once', choice: 'when' },
  mine: { way: 'at-once', choice: 'when' },
  team: { way: 'at-once', choice: 'whether' },
  due: { way: 'at-once', choice: 'whether' },
  late: { way: 'at-once', choice: 'when' },
  news: { way: 'at-once', choice: 'whether' },
  own: { way: 'at-once', choice: 'when' },
};

/** `HH:MM` on the clock of the desk. */
export type ClockTime = string;

/** What somebody has chosen of their emails. */
export interface Hearing {
  readonly ways: Readonly<Partial<Record<Heard, Way>>>;
  /** When their digest goes: at a time, on days of the week from 1 (Monday, ISO 8601) to 7. */
  readonly digest: { readonly at: ClockTime; readonly days: readonly number[] };
  /** From when to when they get no email; over midnight where it ends before it begins. Null: at any time. */
  readonly quiet: { readonly from: ClockTime; readonly to: ClockTime } | null;
}

/** What nobody has changed: a digest on the mornings of working days, and no quiet hours. */
export const USUAL_HEARING: Hearing = { ways: {}, digest: { at: '08:00', days: [1, 2, 3, 4, 5] }, quiet: null };

/**
 * Which kind of email a notice is; null for what goes at once whatever anybody chose, as it was asked for just now.
 * `isTheirs`: whether it is about a request of its reader’s own.
 */
export function heardAs(kind: NoticeCause['kind'], isTheirs: boolean): Heard | null {
  switch (kind) {
    case 'approval-asked':
      return 'decide';
    case 'assigned':
    case 'proposed':
      return 'mine';
    case 'message':
      return isTheirs ? 'own' : 'mine';
    case 'new-request':
      return 'team';
    case 'reminder':
      return 'due';
    case 'escalation':
    case 'undecided':
    case 'nobody-decides':
    case 'nobody-handles':
      return 'late';
    case 'news':
      return 'news';
    case 'received':
    case 'approved':
    case 'refused':
    case 'returned':
    case 'together':
    case 'apart':
    case 'stage':
    case 'due':
    case 'proposal':
      return 'own';
    default:
      return null;
  }
}

/** As what somebody hears of a notice that a form sends besides, by how they come to get it. */
export function heardBy(to: Recipient): Heard {
  if (to === 'requester') return 'own';
  if (to === 'deciding') return 'decide';
  if (to === 'working') return 'mine';
  if (to === 'team') return 'team';
  return to === 'leads' ? 'late' : 'news';
}

/** The ways that somebody may choose among. */
export const waysFor = ({ choice, way }: DeskWay): readonly Way[] =>
  choice === 'none' ? [way] : choice === 'when' ? ['at-once', 'digest'] : WAYS;

/** How somebody hears of something: as they chose, where the desk lets them. */
export function wayOf(heard: Heard, { ways }: Pick<Hearing, 'ways'>, desk: DeskHearing): Way {
  const chosen = ways[heard];
  return chosen !== undefined && waysFor(desk[heard]).includes(chosen) ? chosen : desk[heard].way;
}

/** When something goes: at a moment (epoch ms), alone or with others that go to the same reader then. */
export interface Going {
  readonly at: number;
  readonly isGathered: boolean;
}

/**
 * When an email goes that is caused now; null: not at all. A digest waits for its time, unless what it is about is urgent.
 * In quiet hours all waits for their end, and goes then in one.
 */
export function goingOf(
  way: Way,
  hearing: Hearing,
  { now, zone, isUrgent }: { readonly now: number; readonly zone: string; readonly isUrgent: boolean },
): Going | null {
  if (way === 'never') return null;
  const waits = way === 'digest' && !isUrgent;
  const meant = waits ? nextDigest(hearing, now, zone) : now;
  const at = afterQuiet(hearing, meant, zone);
  return { at, isGathered: waits || at > now };
}

/**
 * When a notice goes as its form says, before its reader’s own choice: at once, or with others at a moment (epoch ms).
 * `first`: when what waits already to go with it will go; null where nothing does.
 */
export function departureAt(
  goes: Departure,
  {
    now,
    zone,
    isUrgent,
    first,
  }: { readonly now: number; readonly zone: string; readonly isUrgent: boolean; readonly first: number | null },
): number {
  if (isUrgent || goes.goes === 'at-once') return now;
  if (goes.goes === 'digest') return nextDigest({ digest: goes }, now, zone);
  return first !== null && first > now ? first : now + goes.minutes * 60_000;
}

/** When the next digest of somebody goes, epoch ms; now where they have no day for one. */
export function nextDigest({ digest: { at, days } }: Pick<Hearing, 'digest'>, now: number, zone: string): number {
  const today = Temporal.PlainDate.from(dateAt(now, zone));
  for (let later = 0; later <= 7; later += 1) {
    const day = today.add({ days: later });
    if (!days.includes(day.dayOfWeek)) continue;
    const moment = instantAt(day, at, zone);
    if (moment > now) return moment;
  }
  return now;
}

/** The end of the quiet hours that a moment (epoch ms) falls into; the moment itself outside of them. */
export function afterQuiet({ quiet }: Pick<Hearing, 'quiet'>, moment: number, zone: string): number {
  if (!quiet || quiet.from === quiet.to) return moment;
  const { from, to } = quiet;
  const clock = wallClockAt(moment, zone).slice(11);
  const isQuiet = from < to ? clock >= from && clock < to : clock >= from || clock < to;
  if (!isQuiet) return moment;
  const today = Temporal.PlainDate.from(dateAt(moment, zone));
  const end = instantAt(today, to, zone);
  return end > moment ? end : instantAt(today.add({ days: 1 }), to, zone);
}

/** Times that a clock skips come when it has been put on, those it shows twice the first time. */
const instantAt = (day: Temporal.PlainDate, time: ClockTime, zone: string): number =>
  day.toZonedDateTime({ timeZone: zone, plainTime: time }).epochMilliseconds;
