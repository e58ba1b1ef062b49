import { eq } from 'drizzle-orm';
import { changing } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { registers } from '../register/tables.ts';
import { requests } from './tables.ts';

const counting = changing(registers, ['nextNumber']);

/** The number of the next request of a register; it is never given again. */
export function nextNumber(tx: Transaction, { id, prefix, nextNumber: next }: RegisterRow): string {
  counting(tx, { id, nextNumber: next + 1 });
  return numberIn(prefix, next);
}

/** How a request is numbered, by its place. */
export const numberIn = (prefix: string, place: number): string => `${prefix}-${String(place).padStart(5, '0')}`;

/** The number that the request after so many more will have, as far as nothing else arrives. */
export const numberToCome = ({ prefix, nextNumber: next }: RegisterRow, after: number): string =>
  numberIn(prefix, next + after);

/** A number for a trial request, which takes none from the register. */
export function trialNumber(db: Reader, prefix: string): string {
  for (let n = 1; ; n += 1) {
    const number = `TRIAL-${prefix}-${n}`;
    if (!db.select({ id: requests.id }).from(requests).where(eq(requests.number, number)).get()) return number;
  }
}
