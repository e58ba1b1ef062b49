import { type Field, numberPrefix, numberWith } from '@tolvek/core/register';
import { and, count, eq, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { countedIn } from './eachRequest.ts';
import { counters, requests } from './tables.ts';

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

const countFrom = (tx: Transaction, { next, ...which }: typeof counters.$inferInsert): void =>
  void tx
    .insert(counters)
    .values({ ...which, next })
    .onConflictDoUpdate({ target: [counters.registerId, counters.field, counters.prefix], set: { next } })
    .run();

/** Days begin anywhere at a quarter of an hour. */
const QUARTER = 900_000;

/**
 * Sets aside as many numbers of fields that are new to a register as there are requests, so that what
 * arrives from now on is numbered after them. `dayOf`: the day at the desk. Returns how many there are.
 */
export function setNumbersAside(
  tx: Transaction,
  registerId: string,
  fields: readonly Field[],
  dayOf: (at: number) => string,
): number {
  const quarters = tx
    .select({ quarter: sql<number>`${requests.createdAt} / ${QUARTER}`, n: count() })
    .from(requests)
    .where(countedIn(registerId, 'all'))
    .groupBy(sql`1`)
    .all();
  for (const { key, type } of numbered(fields)) {
    const of = new Map<string, number>();
    for (const { quarter, n } of quarters) {
      const prefix = numberPrefix(type.prefix, dayOf(quarter * QUARTER));
      of.set(prefix, (of.get(prefix) ?? 0) + n);
    }
    for (const [prefix, n] of of) countFrom(tx, { registerId, field: key, prefix, next: n + 1 });
  }
  return quarters.reduce((all, { n }) => all + n, 0);
}

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
  for (const { key, prefix, next } of found) countFrom(tx, { registerId, field: key, prefix, next: next + 1 });
  return Object.fromEntries(found.map(({ key, number }) => [key, number]));
}
