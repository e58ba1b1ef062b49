import { type Field, numberPrefix, numberWith } from '@tolvek/core/register';
import { and, eq } from 'drizzle-orm';
import type { Transaction } from '../platform/database.ts';
import { counters } from './tables.ts';

type NumberField = Field & { readonly type: Extract<Field['type'], { kind: 'running-number' }> };

export const numbered = (fields: readonly Field[]): readonly NumberField[] =>
  fields.filter((field): field is NumberField => field.source === 'given' && field.type.kind === 'running-number');

/**
 * Gives a request its running numbers. A number that a refused request was given is not lost, as
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
