import { Temporal } from 'temporal-polyfill';
import type { Audience } from '../people/index.ts';

/** How somebody proves who they are: they sign in, or confirm by a letter that an address is theirs. */
export type Proof = 'sign-in' | 'confirmed-address';

/** How many may come in: altogether, or from each person. */
export interface DoorLimit {
  readonly id: string;
  readonly most: number;
  readonly of: 'all' | 'each';
  /** So many days are looked back, today among them; null: to the beginning. */
  readonly days: number | null;
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
}

/** The kind of a door, as conditions know it: for one’s own staff, or for everybody outside. */
export const kindOfProof = (proof: Proof): 'staff' | 'outside' => (proof === 'sign-in' ? 'staff' : 'outside');

/** Whether a door is open at a moment, epoch ms: by hand, and by its times. */
export function doorAt({ open, opensAt, closesAt }: DoorDesign, now: number): 'open' | 'closed' | 'not-yet' {
  if (!open || (closesAt !== null && now >= closesAt)) return 'closed';
  return opensAt !== null && now < opensAt ? 'not-yet' : 'open';
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
export function countsSince({ days }: Pick<DoorLimit, 'days'>, now: number, zone: string): number | null {
  if (days === null) return null;
  const today = Temporal.Instant.fromEpochMilliseconds(now).toZonedDateTimeISO(zone).startOfDay();
  return today.subtract({ days: days - 1 }).epochMilliseconds;
}
