import { createHmac, timingSafeEqual } from 'node:crypto';
import type { DoorRow } from '../door/queries.ts';

const signed = (secret: string, doorId: string, at: number): string =>
  createHmac('sha256', secret).update(`opened ${doorId} ${at}`).digest().subarray(0, 18).toString('base64url');

/**
 * What whoever fills in a form shows later, to prove since when: the moment (epoch ms, base 36) and what signs it. It
 * admits nobody by itself.
 */
export const openedAt = (secret: string, { id }: Pick<DoorRow, 'id'>, at: number): string =>
  `${at.toString(36)}.${signed(secret, id, at)}`;

/** Since when somebody has been filling in the form of a door, epoch ms; null when nothing proves it. */
export function openedSince(secret: string, { id }: Pick<DoorRow, 'id'>, shown: string | undefined): number | null {
  const [moment = '', signature = ''] = (shown ?? '').split('.');
  const at = /^[0-9a-z]{1,10}$/.test(moment) ? Number.parseInt(moment, 36) : Number.NaN;
  if (!Number.isSafeInteger(at)) return null;
  const [wanted, given] = [Buffer.from(signed(secret, id, at)), Buffer.from(signature)];
  return wanted.length === given.length && timingSafeEqual(wanted, given) ? at : null;
}
