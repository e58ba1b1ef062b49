import { type Said, said, type Words } from '@tolvek/words';
import { belongs, NO_REQUEST, type Right } from '../people/index.ts';
import { type Coming, countsAnew, type DoorDesign, type DoorLimit, doorAt, finishBy, kindOfProof } from './door.ts';

/** Why somebody is not admitted. */
export type NotAdmitted = 'closed' | 'not-yet' | 'sign-in' | 'inactive' | 'not-for-you' | 'full';

export type Admission =
  /** `finishBy`: until when they may still send, epoch ms, where the door is closed and they were there before. */
  | { readonly admitted: true; readonly finishBy: number | null }
  | {
      readonly admitted: false;
      readonly why: NotAdmitted;
      readonly message: Words;
      /** The limit that is reached, where it is one of each person. */
      readonly own?: DoorLimit;
    };

/** Who comes to a door, as far as it is known. */
export interface Comer {
  readonly kind: 'staff' | 'contact' | 'unknown';
  readonly active: boolean;
  /** Keys of their groups; none while nobody has said who they are. */
  readonly groups: readonly string[];
  /** Who they are, where it is known. */
  readonly personId?: string;
  /** The conditions on profiles that hold of them, of those the door names. */
  readonly meets?: readonly string[];
  /** What they may do in the register of the door’s form, where the door asks. */
  readonly rights?: readonly Right[];
  /** Whether the form was sent to them: then it is meant for them, and nothing is counted. */
  readonly sent?: true | undefined;
}

/**
 * Whether a door means somebody: whether it would admit them while it is open, has a place and they have sent nothing
 * yet. Whom its form was sent to is not asked.
 */
export const isMeant = (door: DoorDesign, comer: Comer): boolean =>
  comer.active &&
  !door.onlySent &&
  (kindOfProof(door.proof) === 'outside' || comer.kind === 'staff') &&
  belongs(door.audience, comer, NO_REQUEST);

/** That a limit for all is reached: by how many others is not said. */
function fullMessage(limit: DoorLimit, { now, zone }: Coming): Said {
  const from = countsAnew(limit, now, zone);
  if (from !== null) return said('doors:fullUntil', { from });
  return said(limit.days !== null || limit.unfinished ? 'doors:fullForNow' : 'doors:full');
}

/** That somebody has sent as many as they can. */
function yourFullMessage({ most: count, days, period, unfinished }: DoorLimit): Said {
  if (unfinished) return said('doors:yourUnfinished', { count });
  if (period) return said(`doors:yourFull.${period}`, { count });
  if (days === null) return said('doors:yourFull', { count });
  return days === 1 ? said('doors:yourFullToday', { count }) : said('doors:yourFullDays', { count, days });
}

/**
 * Whether somebody may come in now. A refusal always says why, and tells nothing of others. `used`: how many requests
 * count against a limit, those of this person where it is of each.
 */
export function admit(door: DoorDesign, comer: Comer, coming: Coming, used: (limit: DoorLimit) => number): Admission {
  const refuse = (why: NotAdmitted, own: string | undefined, message: Words): Admission => ({
    admitted: false,
    ...{ why, message: own?.trim() || message },
  });
  const { closedMessage, says } = door;
  const state = doorAt(door, coming.now);
  const finish = state === 'closed' ? finishBy(door, coming) : null;
  if (state === 'closed' && finish === null) return refuse('closed', closedMessage, said('doors:closed'));
  if (state === 'not-yet')
    return refuse(
      'not-yet',
      says?.early?.trim() || closedMessage,
      door.opensAt === null ? said('doors:notOpenYet') : said('doors:opensAt', { at: door.opensAt }),
    );
  if (kindOfProof(door.proof) === 'staff' && comer.kind !== 'staff')
    return refuse('sign-in', undefined, said('doors:staffOnly'));
  if (!comer.active) return refuse('inactive', undefined, said('doors:inactive'));
  if (comer.sent) return { admitted: true, finishBy: finish };
  if (door.onlySent) return refuse('not-for-you', says?.others, said('doors:onlySent'));
  if (comer.kind !== 'unknown' && !belongs(door.audience, comer, NO_REQUEST))
    return refuse('not-for-you', says?.others, said('doors:notForYou'));
  // What somebody has sent is counted once it is known who they are.
  const counted = door.limits.filter(({ of }) => of === 'all' || comer.kind !== 'unknown');
  const full = counted.find((limit) => used(limit) >= limit.most);
  if (!full) return { admitted: true, finishBy: finish };
  return full.of === 'all'
    ? refuse('full', says?.full, fullMessage(full, coming))
    : { admitted: false, why: 'full', message: yourFullMessage(full), own: full };
}
