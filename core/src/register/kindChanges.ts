import type { Field, Kind, KindName, RawAnswer } from './field.ts';
import { readAnswer } from './kinds/index.ts';
import { NOTHING_AROUND } from './kinds/kind.ts';

/** Kinds whose answers are words: stored alike, compared alike, read alike by every expression. */
const WORDS = ['text', 'long-text', 'email', 'phone', 'link'] as const satisfies readonly KindName[];
const FROM_WORDS: readonly KindName[] = WORDS;

/**
 * What the kind of a field that holds answers can become. Everything that is held stays as it is
 * (answers, history, what must not be asked twice, what is kept and not sent), and every expression
 * of older releases goes on holding: so only kinds of words are among them, and only where each
 * answer that is held is one of the new kind. Any other change needs a field of its own.
 */
export const KIND_CHANGES: Readonly<Partial<Record<KindName, readonly KindName[]>>> = {
  text: ['long-text', 'email', 'phone', 'link'],
  'long-text': ['text'],
  email: ['text', 'long-text'],
  phone: ['text', 'long-text'],
  link: ['text', 'long-text'],
};

/** Whether the kind of a field that holds answers can become another, if what it holds allows it. */
export const mayBecome = (from: KindName, to: KindName): boolean => KIND_CHANGES[from]?.includes(to) ?? false;

/** Whether an answer that is held is one of a field’s kind, and would be written just so. */
export function fitsAsHeld(field: Pick<Field, 'type'>, held: RawAnswer): boolean {
  const read = readAnswer(field, held, NOTHING_AROUND);
  return read.state === 'value' && read.value === held;
}

/** A field with another kind of words; its limit of signs stays where the kind has one. */
export function asKind(field: Field, to: KindName): Field {
  if (!FROM_WORDS.includes(to)) return field;
  const most =
    'most' in field.type && (field.type.kind === 'text' || field.type.kind === 'long-text')
      ? field.type.most
      : undefined;
  const kind = to as (typeof WORDS)[number];
  const type: Kind =
    (kind === 'text' || kind === 'long-text') && most !== undefined ? { kind, most } : ({ kind } as Kind);
  return { ...field, type } as Field;
}
