import { belongs } from '../people/index.ts';
import { type DoorDesign, type DoorLimit, doorAt, kindOfProof, manyRequests } from './door.ts';

/** Why somebody is not admitted. */
export type NotAdmitted = 'closed' | 'not-yet' | 'sign-in' | 'inactive' | 'not-for-you' | 'full';

export type Admission =
  | { readonly admitted: true }
  | { readonly admitted: false; readonly why: NotAdmitted; readonly message: string };

/** Who comes to a door, as far as it is known. */
export interface Comer {
  readonly kind: 'staff' | 'contact' | 'unknown';
  readonly active: boolean;
  /** Keys of their groups; none while nobody has said who they are. */
  readonly groups: readonly string[];
}

const WHOM_TO_ASK = 'If you need this now, write to the desk.';

const stretch = (days: number | null): string =>
  days === null ? '' : days === 1 ? ' for today' : ` for these ${days} days`;

const fullMessage = ({ most, of, days }: DoorLimit): string =>
  of === 'all'
    ? `This form takes ${manyRequests(most)}${stretch(days)}, and that many have come. ${WHOM_TO_ASK}`
    : `Each person can send ${manyRequests(most)}${stretch(days)} by this form, and you have. ${WHOM_TO_ASK}`;

/**
 * Whether somebody may come in now. A refusal always says why, and whom to ask. `used`: how many requests
 * count against a limit, those of this person where it is of each.
 */
export function admit(door: DoorDesign, comer: Comer, now: number, used: (limit: DoorLimit) => number): Admission {
  const refuse = (why: NotAdmitted, message: string): Admission => ({ admitted: false, why, message });
  const closed = door.closedMessage.trim();
  const state = doorAt(door, now);
  if (state === 'closed') return refuse('closed', closed || `This form is closed. ${WHOM_TO_ASK}`);
  if (state === 'not-yet') return refuse('not-yet', closed || `This form is not open yet. ${WHOM_TO_ASK}`);
  if (kindOfProof(door.proof) === 'staff' && comer.kind !== 'staff')
    return refuse('sign-in', 'This form is for our own staff. Sign in to go on.');
  if (!comer.active)
    return refuse(
      'inactive',
      `New requests can’t be taken from this address. What you asked before can still be read. ${WHOM_TO_ASK}`,
    );
  if (comer.kind !== 'unknown' && !belongs(door.audience, comer, false))
    return refuse('not-for-you', `This form is meant for others. ${WHOM_TO_ASK}`);
  // What somebody has sent is counted once it is known who they are.
  const counted = door.limits.filter(({ of }) => of === 'all' || comer.kind !== 'unknown');
  const full = counted.find((limit) => used(limit) >= limit.most);
  return full ? refuse('full', fullMessage(full)) : { admitted: true };
}
