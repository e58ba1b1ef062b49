import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import type { Field, FieldValue, ItemRow } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { allRegisters } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';

/** The columns or the field itself that take terms of a vocabulary. */
const takes = (field: Field, vocabulary: string): readonly string[] | 'itself' | null => {
  const { type } = field;
  if ((type.kind === 'term' || type.kind === 'terms') && type.vocabulary === vocabulary) return 'itself';
  if (type.kind !== 'line-items') return null;
  const columns = type.columns.flatMap((column) =>
    column.type.kind === 'term' && column.type.vocabulary === vocabulary ? [column.key] : [],
  );
  return columns.length > 0 ? columns : null;
};

const heldIn = (value: FieldValue, where: readonly string[] | 'itself'): readonly string[] => {
  if (where === 'itself') return Array.isArray(value) ? (value as readonly string[]) : [String(value)];
  return (value as readonly ItemRow[]).flatMap((row) =>
    where.flatMap((column) => (row[column] === undefined ? [] : [String(row[column])])),
  );
};

/** Requests of the registers that take terms of a vocabulary, with the fields that do. */
export function* requestsWithTerms(
  db: Reader,
  vocabulary: string,
): Generator<{ request: ShownRow; register: RegisterRow; fields: readonly Field[] }> {
  for (const register of allRegisters(db)) {
    const fields = register.fields.filter((field) => takes(field, vocabulary) !== null);
    if (fields.length === 0) continue;
    for (const request of db.select(SHOWN_COLUMNS).from(requests).where(eq(requests.registerId, register.id)).all())
      yield { request, register, fields };
  }
}

/**
 * How many requests hold each term, as far as a viewer who works with all of them may read the
 * fields that hold it.
 */
export function heldTerms(db: Reader, viewer: Viewer, vocabulary: string): ReadonlyMap<string, number> {
  const held = new Map<string, number>();
  for (const { request, register, fields } of requestsWithTerms(db, vocabulary)) {
    const { values } = request;
    const { readable } = openRequest(db, request, viewer, 'counting', { register });
    const keys = new Set(
      fields
        .filter((field) => readable.has(field.key))
        .flatMap((field) =>
          own(values, field.key) === undefined
            ? []
            : heldIn(values[field.key] as FieldValue, takes(field, vocabulary) ?? []),
        ),
    );
    for (const key of keys) held.set(key, (held.get(key) ?? 0) + 1);
  }
  return held;
}

/**
 * Whether a viewer may read every field that takes terms of a vocabulary: otherwise what is said of
 * a term, because somebody holds it, would tell.
 */
export const mayReadAllHeld = (db: Reader, viewer: Viewer, vocabulary: string): boolean =>
  allRegisters(db).every((register) => {
    const keys = register.fields.filter((field) => takes(field, vocabulary) !== null).map((field) => field.key);
    return keys.length === 0 || askableOf(db, viewer, register, keys).isAll;
  });

/** A value with terms put in the place of others; the same value when it holds none of them. */
export function withTerms(
  field: Field,
  vocabulary: string,
  value: FieldValue,
  now: ReadonlyMap<string, string>,
): FieldValue {
  const where = takes(field, vocabulary);
  if (where === null || !heldIn(value, where).some((key) => now.has(key))) return value;
  const moved = (key: string): string => now.get(key) ?? key;
  if (where === 'itself')
    return Array.isArray(value) ? [...new Set((value as readonly string[]).map(moved))] : moved(String(value));
  return (value as readonly ItemRow[]).map((row) => ({
    ...row,
    ...Object.fromEntries(
      where.flatMap((column) => (row[column] === undefined ? [] : [[column, moved(String(row[column]))]])),
    ),
  }));
}
