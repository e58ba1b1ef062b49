import { type Field, numberPrefix, numberWith } from '@tolvek/core/register';
import { and, eq } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { counters } from './tables.ts';

type NumberField = Field & { readonly type: Extract<Field['type'], { kind: 'running-number' }> };

export const numbered = (fields: readonly Field[]): readonly NumberField[] =>
  fields.filter((field): field is NumberField => field.source === 'given' && field.type.kind === 'running-number');

/** The counter of a field on a day: what its next number begins with, and how far it is. */
function countersOf(db: Reader, registerId: string, fields: readonly Field[], today: string) {
  return numbered(fields).map(({ key, type }) => {
    const prefix = numberPrefix(type.prefix, today);
    const which = and(eq(counters.registerId, registerId), eq(counters.field, key), eq(counters.prefix, prefix));
    const next = db.select({ next: counters.next }).from(counters).where(which).get()?.next ?? 1;
    return { key, prefix, next, number: numberWith(prefix, type.digits, next) };
  });
}

/** The running numbers that the next request of a register will have; none is used by looking. */
export const numbersToCome = (
  db: Reader,
  registerId: string,
  fields: readonly Field[],
  today: string,
): Readonly<Record<string, string>> =>
  Object.fromEntries(countersOf(db, registerId, fields, today).map(({ key, number }) => [key, number]));

/**
 * Gives a request its running numbers: those that were to come, in the same transaction. A number
 * that is given to a request which is refused is taken back with it; and none is given twice, as
 * writers come one after the other.
 */
export function giveNumbers(
  tx: Transaction,
  registerId: string,
  fields: readonly Field[],
  today: string,
): Readonly<Record<string, string>> {
  const found = countersOf(tx, registerId, fields, today);
  for (const { key: field, prefix, next } of found)
    tx.insert(counters)
      .values({ registerId, field, prefix, next: next + 1 })
      .onConflictDoUpdate({
        target: [counters.registerId, counters.field, counters.prefix],
        set: { next: next + 1 },
      })
      .run();
  return Object.fromEntries(found.map(({ key, number }) => [key, number]));
}
