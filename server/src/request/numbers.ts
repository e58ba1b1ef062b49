import { type Field, numberPrefix, numberWith } from '@tolvek/core/register';
import { and, asc, eq } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { counters, requests } from './tables.ts';

type NumberField = Field & { readonly type: Extract<Field['type'], { kind: 'auto-number' }> };

const numbered = (fields: readonly Field[]): readonly NumberField[] =>
  fields.filter((field): field is NumberField => field.source === 'given' && field.type.kind === 'auto-number');

/**
 * Gives a request its automatic numbers. A number that a refused request was given is not lost, as
 * its transaction is taken back with it; and none is given twice, as writers come one after the
 * other.
 */
export function giveNumbers(
  tx: Transaction,
  registerId: string,
  fields: readonly Field[],
  today: string,
): Readonly<Record<string, string>> {
  return Object.fromEntries(
    numbered(fields).map(({ key, type }) => {
      const prefix = numberPrefix(type.prefix, today);
      const which = and(eq(counters.registerId, registerId), eq(counters.field, key), eq(counters.prefix, prefix));
      const next = tx.select({ next: counters.next }).from(counters).where(which).get()?.next ?? 1;
      if (next === 1) tx.insert(counters).values({ registerId, field: key, prefix, next: 2 }).run();
      else
        tx.update(counters)
          .set({ next: next + 1 })
          .where(which)
          .run();
      return [key, numberWith(prefix, type.digits, next)];
    }),
  );
}

/**
 * Numbers the requests that are there, the oldest first, when a register gets a field for it.
 * `dayOf`: the day at the desk.
 */
export function numberExisting(
  tx: Transaction,
  registerId: string,
  fresh: readonly Field[],
  dayOf: (at: number) => string,
): void {
  if (numbered(fresh).length === 0) return;
  const rows = tx
    .select({ id: requests.id, values: requests.values, createdAt: requests.createdAt })
    .from(requests)
    .where(and(eq(requests.registerId, registerId), eq(requests.trial, false)))
    .orderBy(asc(requests.createdAt), asc(requests.id))
    .all();
  for (const row of rows) {
    const values = { ...row.values, ...giveNumbers(tx, registerId, fresh, dayOf(row.createdAt)) };
    tx.update(requests).set({ values }).where(eq(requests.id, row.id)).run();
  }
}
