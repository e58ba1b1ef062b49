import type { ValueChange } from '@tolvek/core/access';
import { own } from '@tolvek/core/own';
import type { Field, Values } from '@tolvek/core/register';

export const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What differs between two states of a request’s values. */
export const changesBetween = (fields: readonly Field[], before: Values, after: Values): readonly ValueChange[] =>
  fields.flatMap(({ key }) => {
    const was = own(before, key) ?? null;
    const is = own(after, key) ?? null;
    return isSame(was, is) ? [] : [{ field: key, before: was, after: is }];
  });
