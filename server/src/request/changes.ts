import type { ValueChange } from '@tolvek/core/access';
import { own } from '@tolvek/core/own';
import type { Field, FieldValue, Values } from '@tolvek/core/register';

export const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What differs between two states of a request’s values. */
export const changesBetween = (fields: readonly Field[], before: Values, after: Values): readonly ValueChange[] =>
  fields.flatMap(({ key }) => {
    const was = own(before, key) ?? null;
    const is = own(after, key) ?? null;
    return isSame(was, is) ? [] : [{ field: key, before: was, after: is }];
  });

/** Values with some of them changed; null takes one away. */
export function withChanges(values: Values, changes: readonly ValueChange[]): Values {
  const next: Record<string, FieldValue> = { ...values };
  for (const { field, after } of changes) {
    if (after === null) delete next[field];
    else next[field] = after as FieldValue;
  }
  return next;
}

/** Values as they were before some changes, the last of them first. */
export const undone = (values: Values, changes: readonly ValueChange[]): Values =>
  withChanges(
    values,
    changes.toReversed().map(({ field, before }) => ({ field, before: null, after: before })),
  );
