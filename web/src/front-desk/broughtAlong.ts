import { answersIn, canComeByLink } from '@tolvek/core/door';
import {
  type Field,
  type FieldValue,
  NOTHING_AROUND,
  type RawAnswer,
  type RawAnswers,
  readAnswer,
  typedForm,
} from '@tolvek/core/register';

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

/** What somebody typed at a form that led here, and what that form is called. */
export interface From {
  readonly title: string;
  readonly values: readonly { readonly key: string; readonly value: RawAnswer }[];
}

/** What was typed at another form, where this one asks the same and would take it; files and what is picked are chosen anew. */
export function answersFrom(fields: readonly Field[], { values }: From): RawAnswers {
  const typed = new Map(values.map(({ key, value }) => [key, value]));
  return Object.fromEntries(
    fields.flatMap((field) => {
      const value = typed.get(field.key);
      if (value === undefined || value === null || value === '' || !canComeByLink(field)) return [];
      return readAnswer(field, value, NOTHING_AROUND).state === 'value' ? [[field.key, value]] : [];
    }),
  );
}

/** An email that somebody of the desk makes a request of, in the name of whoever wrote it. */
export interface ByEmail {
  readonly id: string;
  readonly name: string;
  readonly subject: string;
  readonly text: string;
}

/** The questions for a long text that would take the words of an email as their answer. */
export const questionsFor = (fields: readonly Field[], { text }: ByEmail): readonly Field[] =>
  fields.filter(
    (field) =>
      field.type.kind === 'long-text' &&
      canComeByLink(field) &&
      readAnswer(field, text, NOTHING_AROUND).state === 'value',
  );

interface Asked {
  readonly fields: readonly Field[];
  readonly prefills: readonly string[];
}

/** What comes along with somebody who opens a form: answers of an old request or another form, else those in the address. */
export const broughtAlong = (
  { fields, prefills }: Asked,
  {
    search,
    like,
    from,
  }: {
    readonly search: string;
    readonly like: Like | null;
    readonly from: From | null;
  },
): RawAnswers => ({
  ...answersIn(fields, prefills, new URLSearchParams(search)),
  ...(from ? answersFrom(fields, from) : {}),
  ...(like ? answersLike(fields, like) : {}),
});
