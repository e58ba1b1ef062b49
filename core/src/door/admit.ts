import { said, type Words } from '@tolvek/words';
import { belongs, NO_REQUEST } from '../people/index.ts';
import { type DoorDesign, type DoorLimit, doorAt, kindOfProof } from './door.ts';

/** Why somebody is not admitted. */
export type NotAdmitted = 'closed' | 'not-yet' | 'sign-in' | 'inactive' | 'not-for-you' | 'full';

export type Admission =
  | { readonly admitted: true }
  | { readonly admitted: false; readonly why: NotAdmitted; readonly message: Words };

/** Who comes to a door, as far as it is known. */
export interface Comer {
  readonly kind: 'staff' | 'contact' | 'unknown';
  readonly active: boolean;
  /** Keys of their groups; none while nobody has said who they are. */
  readonly groups: readonly string[];
}

function fullMessage({ most: count, of, days }: DoorLimit): Words {
  if (days === null) return said(of === 'all' ? 'doors:full' : 'doors:yourFull', { count });
  if (days === 1) return said(of === 'all' ? 'doors:fullToday' : 'doors:yourFullToday', { count });
  return said(of === 'all' ? 'doors:fullDays' : 'doors:yourFullDays', { count, days });
}

/**
 * Whether somebody may come in now. A refusal always says why, and whom to ask. `used`: how many requests
 * count against a limit, those of this person where it is of each.
 */
export function admit(door: DoorDesign, comer: Comer, now: number, used: (limit: DoorLimit) => number): Admission {
  const refuse = (why: NotAdmitted, message: Words): Admission => ({ admitted: false, why, message });
  const closed = door.closedMessage.trim();
  const state = doorAt(door, now);
  if (state === 'closed') return refuse('closed', closed || said('doors:closed'));
  if (state === 'not-yet') return refuse('not-yet', closed || said('doors:notOpenYet'));
  if (kindOfProof(door.proof) === 'staff' && comer.kind !== 'staff') return refuse('sign-in', said('doors:staffOnly'));
  if (!comer.active) return refuse('inactive', said('doors:inactive'));
  if (comer.kind !== 'unknown' && !belongs(door.audience, comer, NO_REQUEST))
    return refuse('not-for-you', said('doors:notForYou'));
  // What somebody has sent is counted once it is known who they are.
  const counted = door.limits.filter(({ of }) => of === 'all' || comer.kind !== 'unknown');
  const full = counted.find((limit) => used(limit) >= limit.most);
  return full ? refuse('full', fullMessage(full)) : { admitted: true };
}
