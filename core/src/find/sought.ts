import { CalendarDate } from '../expression/index.ts';
import type { Field, Vocabulary } from '../register/index.ts';
import { dayTag, type Findable, numberTag, optionTag, termTag } from './tags.ts';
import { isMeant, MOST_WORDS, wordsOf } from './words.ts';

/** One thing that is looked for: a place has it that holds any of these. */
export interface Sought {
  /** As it was typed. */
  readonly typed: string;
  /** Words, by how they begin. */
  readonly words: readonly string[];
  readonly tags: ReadonlySet<string>;
  /** The day that is meant, ISO 8601, where it is one. */
  readonly day?: string;
}

/** What is known where something is looked for. */
export interface SoughtIn {
  /** `YYYY-MM-DD` at the desk. */
  readonly today: string;
  /** What months are called, in small letters without accents, and which they are (1 to 12). */
  readonly months: ReadonlyMap<string, number>;
  /** Tags of what is called by a word that begins so. */
  readonly called: (word: string) => readonly string[];
}

const ISO = /\b(\d{4})-(\d{1,2})-(\d{1,2})\b/;
// Without a point after it, `12.5` is a number.
const POINTS = /(?<![\d.,/-])(\d{1,2})\.(\d{1,2})\.(\d{4})?(?![\d.,/-])/;
const STROKES = /(?<![\d.,/-])(\d{1,2})\/(\d{1,2})(?:\/(\d{4}))?(?![\d.,/-])/;
const NAMED = /(?<![\p{L}\d])(\d{1,2})\.?\s+(\p{L}{3,})\.?(?:\s+(\d{4}))?(?![\p{L}\d])/u;
const NAMED_FIRST = /(?<![\p{L}\d])(\p{L}{3,})\.?\s+(\d{1,2})(?:,?\s+(\d{4}))?(?![\p{L}\d.,])/u;

const two = (figure: number | string): string => String(figure).padStart(2, '0');

/** A day; of one without a year the one that is nearest. Null where there is no such day. */
function dayOf(year: string | undefined, month: number, day: string, today: string): string | null {
  const on = (of: number): CalendarDate | null => CalendarDate.read(`${of}-${two(month)}-${two(day)}`);
  if (year !== undefined) return on(Number(year))?.toString() ?? null;
  const now = CalendarDate.read(today);
  if (!now) return null;
  const near = [-1, 0, 1].flatMap((other) => on(Number(today.slice(0, 4)) + other) ?? []);
  const away = (each: CalendarDate): number => Math.abs(each.day - now.day);
  return near.sort((a, b) => away(a) - away(b))[0]?.toString() ?? null;
}

/** The first day that a text names, and how it is typed there. A day before its month, as most of the world writes it. */
function dayIn(text: string, { today, months }: SoughtIn): { readonly day: string; readonly typed: string } | null {
  const read = (
    found: RegExpExecArray | null,
    [year, month, day]: readonly [number, number, number],
  ): { readonly day: string; readonly typed: string } | null => {
    if (!found) return null;
    const typedMonth = found[month] ?? '';
    const nth = /^\d+$/.test(typedMonth) ? Number(typedMonth) : months.get(wordsOf(typedMonth)[0] ?? '');
    const is = nth === undefined ? null : dayOf(found[year], nth, found[day] ?? '', today);
    return is === null ? null : { day: is, typed: found[0] };
  };
  return (
    read(ISO.exec(text), [1, 2, 3]) ??
    read(POINTS.exec(text), [3, 2, 1]) ??
    read(STROKES.exec(text), [3, 2, 1]) ??
    read(NAMED.exec(text), [3, 2, 1]) ??
    read(NAMED_FIRST.exec(text), [3, 1, 2])
  );
}

/** What is looked for by a text: days, numbers and words, all of which a request has to have somewhere. */
export function soughtBy(text: string, around: SoughtIn): readonly Sought[] {
  const sought: Sought[] = [];
  let rest = text;
  for (let found = dayIn(rest, around); found && sought.length < MOST_WORDS; found = dayIn(rest, around)) {
    sought.push({ typed: found.typed.trim(), words: [], tags: new Set([dayTag(found.day)]), day: found.day });
    rest = rest.replace(found.typed, ' ');
  }
  for (const chunk of rest.split(/\s+/)) {
    const words = wordsOf(chunk);
    if (/^\d+[.,]\d+$/.test(chunk)) {
      sought.push({ typed: chunk, words: [], tags: new Set([numberTag(Number(chunk.replace(',', '.')))]) });
      continue;
    }
    for (const word of words) {
      const tags = new Set(around.called(word));
      if (/^\d+$/.test(word)) tags.add(numberTag(Number(word)));
      sought.push({ typed: word, words: [word], tags });
    }
  }
  return sought.slice(0, MOST_WORDS);
}

/** Days before and after one that are near it. */
const NEAR = 3;

/** The same, with days near what is meant and words that are nearly written so. */
export const widened = (each: Sought, nearly: readonly string[]): Sought => {
  const meant = each.day === undefined ? null : CalendarDate.read(each.day);
  const near = meant
    ? Array.from({ length: NEAR * 2 + 1 }, (_, at) => meant.plusDays(at - NEAR)).flatMap((day) =>
        day ? [dayTag(day.toString())] : [],
      )
    : [];
  return { ...each, words: [...each.words, ...nearly], tags: new Set([...each.tags, ...near]) };
};

/** Whether something that is looked for stands in a place. */
export function standsIn({ words, tags }: Pick<Sought, 'words' | 'tags'>, place: Pick<Findable, 'words'>): boolean {
  for (const tag of tags) if (place.words.has(tag)) return true;
  if (words.length === 0) return false;
  for (const word of place.words) if (words.some((each) => isMeant(word, each))) return true;
  return false;
}

/** The tags of options and levels that some fields offer, and of terms, by what they are called. */
export function calledIn(
  fields: readonly Pick<Field, 'key' | 'type'>[],
  vocabularies: readonly Vocabulary[],
): SoughtIn['called'] {
  const called: { readonly words: readonly string[]; readonly tag: string }[] = [];
  const add = (tag: string, ...texts: readonly string[]): void =>
    void called.push({ tag, words: texts.flatMap(wordsOf) });
  for (const { key, type } of fields) {
    if (type.kind === 'choice' || type.kind === 'choices')
      for (const option of type.options) add(optionTag(key, option.key), option.label);
    if (type.kind === 'level') for (const { worth, label } of type.levels) add(optionTag(key, worth), label);
  }
  for (const { key, terms } of vocabularies) {
    const now = new Map(terms.map((term) => [term.key, term]));
    for (const term of terms) {
      // What was merged into another is called as that one.
      const as = now.get(term.now ?? term.key) ?? term;
      add(termTag(key, term.key), term.label, as.label, ...(as.also ?? []));
    }
  }
  return (word) => called.flatMap(({ words, tag }) => (words.some((each) => isMeant(each, word)) ? [tag] : []));
}
