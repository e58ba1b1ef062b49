import { answersIn, canComeByLink } from '@tolvek/core/door';
import { type Field, type FieldValue, type RawAnswers, typedForm } from '@tolvek/core/register';

/** An old request that somebody asks again: what it holds, as they read it. */
export interface Like {
  readonly number: string;
  readonly values: readonly { readonly key: string; readonly value: FieldValue | null }[];
}

/** The answers of an old request as they would be typed; files and what is picked from others are chosen anew. */
export function answersLike(fields: readonly Field[], { values }: Like): RawAnswers {
  const held = new Map(values.map(({ key, value }) => [key, value]));
  return Object.fromEntries(
    fields.flatMap((field) => {
      const value = held.get(field.key);
      return value === undefined || value === null || !canComeByLink(field)
        ? []
        : [[field.key, typedForm(field, value)]];
    }),
  );
}

interface Asked {
  readonly fields: readonly Field[];
  readonly prefills: readonly string[];
}

/** What comes along with somebody who opens a form: answers of an old request, else those in the address. */
export const broughtAlong = (
  { fields, prefills }: Asked,
  { search, like }: { readonly search: string; readonly like: Like | null },
): RawAnswers => ({
  ...answersIn(fields, prefills, new URLSearchParams(search)),
  ...(like ? answersLike(fields, like) : {}),
});
