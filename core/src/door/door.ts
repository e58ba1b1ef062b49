import { dateAt, dayBegins, type Period, periodAt } from '../deadline/index.ts';
import type { Translations } from '../design/index.ts';
import type { Audience } from '../people/index.ts';
import type { Phase } from '../register/index.ts';

/** How somebody proves who they are: they sign in, or confirm by a letter that an address is theirs. */
export type Proof = 'sign-in' | 'confirmed-address';

/**
 * How many may come in: altogether, or from each person. Requests that were refused or withdrawn never count.
 */
export interface DoorLimit {
  readonly id: string;
  readonly most: number;
  readonly of: 'all' | 'each';
  /** So many days are looked back, today among them; null: to the beginning. */
  readonly days: number | null;
  /** What came in this week, month or year counts; `days` is null then. */
  readonly period?: Period | undefined;
  /** Only what is not finished counts. */
  readonly unfinished?: true | undefined;
}

/** What people read who can’t come in, by why; a general sentence stands in for an empty one. */
export interface DoorWords {
  readonly early?: string | undefined;
  readonly full?: string | undefined;
  readonly others?: string | undefined;
}

/** What somebody agrees to who asks. `version` goes up with each change of the text. */
export interface Consent {
  readonly text: string;
  readonly version: number;
}

/** A way in to a form: who comes in, how they prove who they are, when, how many, in which words. */
export interface DoorDesign {
  /** What the desk calls it. */
  readonly name: string;
  /** Who may ask by it. Of somebody who is not known yet it is found out when they are. */
  readonly audience: Audience;
  readonly proof: Proof;
  /** Nothing about who comes in is stored, not even of who is signed in. Named when nothing is said. */
  readonly unnamed?: true | undefined;
  readonly open: boolean;
  /** Epoch ms; null: no limit. */
  readonly opensAt: number | null;
  readonly closesAt: number | null;
  readonly limits: readonly DoorLimit[];
  /** What people read when it is closed; a general sentence stands in for an empty one. */
  readonly closedMessage: string;
  readonly says?: DoorWords | undefined;
  /** How many minutes whoever was filling in when it closed may still send; none when nothing is said. */
  readonly finishing?: number | undefined;
  /** Whether those who may come in read how many more can. */
  readonly showsPlaces?: true | undefined;
  /** Whoever comes when its places are taken can wait for one; for how many hours one that is free is held for whoever is first. */
  readonly waits?: number | undefined;
  /** The slug of a door to go to for those who can’t come in by this one. */
  readonly instead?: string | undefined;
  /** What is said once a request came in, with fields of it in braces. */
  readonly confirmation?: string | undefined;
  readonly consent?: Consent | undefined;
  /** The fields whose answers a link may bring along. */
  readonly prefills?: readonly string[] | undefined;
  /** Origins of pages elsewhere in which it may stand as a frame, `https://school.example`; in none when nothing is said. */
  readonly embeds?: readonly string[] | undefined;
  /**
   * The field that says whose a request is: the person in it, or whoever has the address in it. Who asked is remembered as
   * who typed it in. When nothing is said, and where it is empty: of who asks.
   */
  readonly whose?: string | undefined;
  /**
   * How whoever asks from outside proves that their address is theirs. When nothing is said: before it comes in, and once
   * on a device where they sign in.
   */
  readonly proves?: Proving | undefined;
  /** What whoever asked from outside has to prove to follow it: on each device, or each time; with nothing said the link is enough. */
  readonly follows?: 'device' | 'each-time' | undefined;
  /** Until when whoever asked may change answers, as far as the plan lets them; as long as that does when nothing is said. */
  readonly changes?: Until | undefined;
  /** What is done anew when whoever asked changes an answer: who works on it, who decides. Nothing when nothing is said. */
  readonly again?: readonly Again[] | undefined;
  /** Until when they may withdraw it; never when nothing is said. */
  readonly withdraws?: Exclude<Until, 'never'> | undefined;
  /** Whether the device of who is not signed in does some work before it sends: robots that send much are slowed down. */
  readonly slowsRobots?: true | undefined;
  /** Only whom its form was sent to comes in; everybody its audience means when nothing is said. */
  readonly onlySent?: true | undefined;
  /** What people read at it in other languages. */
  readonly translations?: Translations | undefined;
}

/**
 * How it is proved whose a request from outside is: each time, by a link or a code of these minutes; or not before it comes
 * in, so that it is theirs once they confirm their address, and until then nobody’s.
 */
export const PROVING = ['each-time', 'never'] as const;
export type Proving = (typeof PROVING)[number];

/** What a changed answer can have done anew: it is routed, it is decided. */
export const AGAIN = ['routing', 'decision'] as const;
export type Again = (typeof AGAIN)[number];

/** Until when whoever asked may do something with what they sent: until somebody works on it, until it is finished. */
export type Until = 'never' | 'worked-on' | 'finished';

/** Whether something may still be done with a request that is in a phase. */
export const mayStill = (until: Until, phase: Phase): boolean =>
  until === 'finished' ? phase !== 'finished' : until === 'worked-on' && phase === 'arrived';

/** When somebody comes to a door. */
export interface Coming {
  /** Epoch ms, as all of them. */
  readonly now: number;
  /** When it was last closed by hand; null when that is not known, or it is open. */
  readonly shutAt?: number | null | undefined;
  /** Since when they have been filling in its form, as far as the house knows; null: they only come now. */
  readonly since?: number | null | undefined;
  /** IANA name; where days begin at midnight. */
  readonly zone: string;
}

/** The kind of a door, as conditions know it: for one’s own staff, or for everybody outside. */
export const kindOfProof = (proof: Proof): 'staff' | 'outside' => (proof === 'sign-in' ? 'staff' : 'outside');

/** Whether a door is open at a moment, epoch ms: by hand, and by its times. */
export function doorAt({ open, opensAt, closesAt }: DoorDesign, now: number): 'open' | 'closed' | 'not-yet' {
  if (!open || (closesAt !== null && now >= closesAt)) return 'closed';
  return opensAt !== null && now < opensAt ? 'not-yet' : 'open';
}

/**
 * Until when somebody may still send by a door that is closed, epoch ms, because they were filling in when it closed;
 * null when they may not.
 */
export function finishBy(door: DoorDesign, { now, since = null, shutAt = null }: Coming): number | null {
  const { closesAt, finishing = 0, opensAt } = door;
  const byTime = closesAt !== null && now >= closesAt ? closesAt : null;
  // What was closed by hand before its time is closed from then on.
  const closed = door.open ? byTime : shutAt === null || byTime === null ? shutAt : Math.min(shutAt, byTime);
  if (closed === null || since === null || since >= closed || (opensAt !== null && now < opensAt)) return null;
  const until = closed + finishing * 60_000;
  return now < until ? until : null;
}

/** A door as it is when a form is made: open to everybody of its kind, without end. */
export const newDoor = (proof: Proof, name: string): DoorDesign => ({
  name,
  audience: { in: { everyone: true }, outOf: [] },
  proof,
  open: true,
  opensAt: null,
  closesAt: null,
  limits: [],
  closedMessage: '',
});

/**
 * From when on requests count against a limit, epoch ms; null: from the beginning. Days begin at midnight
 * in `zone` (an IANA name).
 *
 * @example `{ days: 1 }` at 15:00 counts what came since midnight.
 */
export function countsSince(limit: Pick<DoorLimit, 'days' | 'period'>, now: number, zone: string): number | null {
  const { days, period } = limit;
  if (days === null && !period) return null;
  if (period) return dayBegins(periodAt(period, now, zone).from, zone);
  return dayBegins(dateAt(now, zone), zone, 1 - (days ?? 1));
}

/**
 * The day (ISO 8601) on which a limit counts anew whatever has come; null where that hangs on what has come.
 *
 * @example `{ days: 1 }` begins anew tomorrow, `{ period: 'week' }` next Monday.
 */
export function countsAnew(limit: DoorLimit, now: number, zone: string): string | null {
  const { days, period, unfinished } = limit;
  if (unfinished) return null;
  if (period) return periodAt(period, now, zone).next;
  return days === 1 ? dateAt(dayBegins(dateAt(now, zone), zone, 1), zone) : null;
}

/** How many more can come in: the fewest that a limit for all leaves; null where nothing limits them. */
export function placesLeft({ limits }: DoorDesign, used: (limit: DoorLimit) => number): number | null {
  const left = limits.flatMap((limit) => (limit.of === 'all' ? [Math.max(0, limit.most - used(limit))] : []));
  return left.length === 0 ? null : Math.min(...left);
}

/**
 * How many who wait are offered a place now: as many as are free, less those held for others already. `used`: what counts
 * against each limit, without those who wait.
 */
export const placesToOffer = (
  door: DoorDesign,
  used: (limit: DoorLimit) => number,
  { now, held }: { readonly now: number; readonly held: number },
): number =>
  door.waits === undefined || doorAt(door, now) !== 'open' ? 0 : Math.max(0, (placesLeft(door, used) ?? 0) - held);
