import { own } from '../own/index.ts';
import {
  type Field,
  type FieldValue,
  fieldKeyOf,
  fileName,
  type ItemRow,
  partsOf,
  type SingleKind,
  typedForm,
  type Values,
} from '../register/index.ts';
import { wordsOf } from './words.ts';

/** Stands before what is no word of a text (Unicode, private use area), and in place of what parts words. */
const TAG = '\uE000';
const APART = '\uE001';

/** One word for something that answers name by what it is, and not by what it is called. */
const tag = (is: string, ...parts: readonly (string | number)[]): string =>
  `${TAG}${is}${parts
    .join(' ')
    .toLowerCase()
    .replace(/[^a-z0-9]/g, (sign) => `${APART}${sign.charCodeAt(0).toString(16)}`)}`;

export const personTag = (id: string): string => tag('p', id);
export const termTag = (vocabulary: string, key: string): string => tag('t', vocabulary, key);
export const requestTag = (id: string): string => tag('r', id);
export const optionTag = (part: string, option: string | number): string => tag('o', part, option);
/** `day`: ISO 8601. */
export const dayTag = (day: string): string => tag('d', day);
export const numberTag = (number: number): string => tag('n', String(number));

/** What a request is found by in one place: an answer, what was said, who asked. */
export interface Findable {
  /** The key of a field or of a column of lines, or one of `PLACES`. */
  readonly place: string;
  /** Words, and tags for what is called elsewhere. */
  readonly words: ReadonlySet<string>;
}

/** What a request is found by besides its answers: no field has such a key. */
export const PLACES = { said: ':said', people: ':people' } as const;

const list = (value: FieldValue): readonly string[] => (Array.isArray(value) ? (value as readonly string[]) : []);

/** The words and tags of a value. Yes or no, and lengths of time, are found by nothing. */
function wordsIn({ key, type }: Pick<Field, 'key' | 'type'>, value: FieldValue): readonly string[] {
  switch (type.kind) {
    case 'text':
    case 'long-text':
    case 'email':
    case 'phone':
    case 'link':
    case 'running-number':
      return wordsOf(String(value));
    case 'number':
    case 'money': {
      const figure = Number(typedForm({ type }, value));
      return Number.isFinite(figure) ? [numberTag(figure)] : [];
    }
    case 'date':
    case 'date-time':
      return [dayTag(String(value).slice(0, 10))];
    case 'choice':
      return optionWords(key, type, String(value));
    case 'choices':
      return list(value).flatMap((each) => optionWords(key, type, each));
    case 'level':
      return [optionTag(key, Number(value))];
    case 'term':
      return [termTag(type.vocabulary, String(value))];
    case 'terms':
      return list(value).map((each) => termTag(type.vocabulary, each));
    case 'person':
      return [personTag(String(value))];
    case 'people':
      return list(value).map(personTag);
    case 'reference':
      return [requestTag(String(value))];
    case 'references':
      return list(value).map(requestTag);
    case 'files':
      return list(value).flatMap((each) => wordsOf(fileName(each)));
    case 'yes-no':
    case 'duration':
    case 'line-items':
      return [];
  }
}

const optionWords = (
  key: string,
  { options }: Pick<Extract<SingleKind, { kind: 'choice' }>, 'options'>,
  value: string,
): readonly string[] => (options.some((each) => each.key === value) ? [optionTag(key, value)] : wordsOf(value));

/** What the answers of a request are found by; `keys`: of fields and columns of lines, where it is some only. */
export const findableIn = (fields: readonly Field[], values: Values, keys?: ReadonlySet<string>): readonly Findable[] =>
  partsOf(fields).flatMap((part) => {
    const held = own(values, fieldKeyOf(part.key));
    if (held === undefined || (keys && !keys.has(part.key))) return [];
    const column = part.key.slice(fieldKeyOf(part.key).length + 1);
    const each = column === '' ? [held] : (held as readonly ItemRow[]).map((row) => own(row, column));
    const words = new Set(each.flatMap((value) => (value === undefined ? [] : wordsIn(part, value))));
    return words.size === 0 ? [] : [{ place: part.key, words }];
  });
