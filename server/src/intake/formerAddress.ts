import { refused } from '@tolvek/words';
import type { DoorRow } from '../door/queries.ts';
import { Problem } from '../platform/problem.ts';

/**
 * Lets nobody in by an address that its door has no more, but for whoever has something in their hands that was given to
 * them alone, or was filling in when it ended.
 *
 * @throws Problem 410
 */
export function refuseFormer(
  { endedAt }: Pick<DoorRow, 'endedAt'>,
  { since, shows }: { readonly since: number | null; readonly shows: boolean },
): void {
  if (endedAt === undefined || shows || (since !== null && since < endedAt)) return;
  throw new Problem(410, 'address-ended', refused('doorAddressEnded'));
}
