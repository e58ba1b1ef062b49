import { plainLetters } from '../people/index.ts';

/** Words that are looked for at once. */
export const MOST_WORDS = 8;

/** Letters of a word that is looked for by how it begins; shorter ones are looked for as they are. */
const BEGINS = 3;

/** The words of a text as they are compared: in small letters, without accents, whatever stands between them left out. */
export const wordsOf = (text: string): readonly string[] => plainLetters(text).match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether a word of a text is one that is looked for: it begins so; a short one is it. */
export const isMeant = (word: string, sought: string): boolean =>
  sought.length < BEGINS ? word === sought : word.startsWith(sought);

/** Whether something is called by all of some words: each is the beginning of a word of its name. */
export function isCalled(name: string, sought: readonly string[]): boolean {
  const words = wordsOf(name);
  return sought.every((each) => words.some((word) => word.startsWith(each)));
}

/** A piece of a text; `meant`: what is looked for. */
export interface Piece {
  /** Where it begins, in letters. */
  readonly at: number;
  readonly text: string;
  readonly meant: boolean;
}

/** The part of a cut text that stands before the first of what is meant. */
const BEFORE = 1 / 3;

/** A text in pieces, with the words in it that are meant; cut to some letters around the first of them. */
export function piecesOf(text: string, sought: readonly string[], most: number): readonly Piece[] {
  const line = text.replace(/\s+/g, ' ').trim();
  const words = [...line.matchAll(/[\p{L}\p{N}\p{M}]+/gu)].map((match) => ({
    ...{ from: match.index, to: match.index + match[0].length },
    meant: wordsOf(match[0]).some((word) => sought.some((each) => isMeant(word, each))),
  }));
  const first = words.find(({ meant }) => meant);
  const ideal = line.length <= most ? 0 : Math.max(0, (first?.from ?? 0) - Math.floor(most * BEFORE));
  // A text begins and ends with a whole word.
  const from = ideal === 0 ? 0 : (words.find((word) => word.from >= ideal)?.from ?? ideal);
  const to =
    from + most >= line.length ? line.length : (words.findLast((word) => word.to <= from + most)?.to ?? from + most);
  const pieces: Piece[] = [];
  let at = from;
  const put = (to: number, meant: boolean): void => {
    if (to > at) pieces.push({ at, text: line.slice(at, to), meant });
    at = to;
  };
  for (const word of words)
    if (word.meant && word.from >= from && word.to <= to) {
      put(word.from, false);
      put(word.to, true);
    }
  put(to, false);
  const [head, tail] = [pieces[0], pieces.at(-1)];
  return pieces.map((piece) => ({
    ...piece,
    text: `${piece === head && from > 0 ? '… ' : ''}${piece.text}${piece === tail && to < line.length ? ' …' : ''}`,
  }));
}
