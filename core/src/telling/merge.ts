import { said, type Words } from '@tolvek/words';

/** What a text of an email can name besides the fields of the request. */
export const SLOTS = [
  ...(['request.number', 'request.form', 'request.subject', 'request.stage', 'request.due'] as const),
  ...(['request.team', 'request.handler', 'request.priority'] as const),
  ...(['requester.name', 'reader.name', 'happened.by', 'happened.text', 'group.name', 'group.count'] as const),
] as const;
export type Slot = (typeof SLOTS)[number];

/** What every email about a request has: there is no need for other words. */
const ALWAYS_THERE: ReadonlySet<string> = new Set<Slot>([
  ...(['request.number', 'request.form', 'request.subject', 'request.stage', 'reader.name'] as const),
]);
export const mayBeEmpty = (name: string): boolean => !ALWAYS_THERE.has(name);

/** `{visitor}`, `{request.number}`, and with words for where there is nothing: `{visitor|somebody}`. */
const NAMED = /\{([a-z]\w*(?:\.[a-z]+)?)(?:\|([^{}]*))?\}/g;

/** A piece of a text: words as they stand, or something named, with what is said where that is empty. */
export type Piece = string | { readonly name: string; readonly otherwise: string | null };

export function piecesOf(text: string): readonly Piece[] {
  const pieces: Piece[] = [];
  let end = 0;
  for (const found of text.matchAll(NAMED)) {
    if (found.index > end) pieces.push(text.slice(end, found.index));
    pieces.push({ name: found[1] ?? '', otherwise: found[2] ?? null });
    end = found.index + found[0].length;
  }
  if (end < text.length) pieces.push(text.slice(end));
  return pieces;
}

export const pieceText = (piece: Piece): string =>
  typeof piece === 'string' ? piece : `{${piece.name}${piece.otherwise === null ? '' : `|${piece.otherwise}`}}`;

/** What a text names, each once. */
export const namedInText = (text: string): readonly string[] => [
  ...new Set([...text.matchAll(NAMED)].map(([, name = '']) => name)),
];

const SENTENCES = new Intl.Segmenter('en', { granularity: 'sentence' });

/** A text in sentences, each with the space behind it. Sentences end where their words do, whatever stands in braces (UAX 29). */
function sentencesOf(text: string): readonly string[] {
  const masked = text.replace(NAMED, (named) => 'X'.repeat(named.length));
  return [...SENTENCES.segment(masked)].map(({ index, segment }) => text.slice(index, index + segment.length));
}

interface Sentence {
  readonly written: string;
  readonly pieces: readonly Piece[];
}

/** Texts taken apart, by text: there are few, and each is filled in for many. */
const apart = new Map<string, readonly (readonly Sentence[])[]>();
const KEPT_APART = 500;

/** The sentences of each paragraph of a text, in pieces. */
function takenApart(text: string): readonly (readonly Sentence[])[] {
  let found = apart.get(text);
  if (!found) {
    if (apart.size >= KEPT_APART) apart.clear();
    found = text
      .split(/\n\s*\n/)
      .map((paragraph) =>
        sentencesOf(paragraph.trim()).map((written) => ({ written: written.trim(), pieces: piecesOf(written) })),
      );
    apart.set(text, found);
  }
  return found;
}

export interface Merged {
  readonly paragraphs: readonly Words[];
  /** Sentences that are left out, as they were written, each with what it names that there is not. */
  readonly left: readonly { readonly sentence: string; readonly names: readonly string[] }[];
}

/**
 * A text with what it names put in. Where something is empty its own words for that stand there; a sentence without such
 * words is left out as a whole, so that no email has a hole. Null or empty: there is nothing, or its reader may not read it.
 */
export function mergeText(text: string, filled: (name: string) => Words | null): Merged {
  const left: Merged['left'][number][] = [];
  const paragraphs: Words[] = [];
  for (const paragraph of takenApart(text)) {
    const pieces: Words[] = [];
    for (const { written: sentence, pieces: parts } of paragraph) {
      const names: string[] = [];
      const told = parts.map((piece): Words => {
        if (typeof piece === 'string') return piece;
        const value = filled(piece.name) ?? '';
        if (value !== '') return value;
        if (piece.otherwise === null) names.push(piece.name);
        return piece.otherwise ?? '';
      });
      if (names.length > 0) left.push({ sentence, names });
      else pieces.push(...told);
    }
    const words = glued(pieces);
    if (words !== '') paragraphs.push(words);
  }
  return { paragraphs, left };
}

/** Pieces as one, without space at its ends. */
function glued(pieces: readonly Words[]): Words {
  const joined: Words[] = [];
  for (const piece of pieces) {
    const last = joined.at(-1);
    if (typeof piece === 'string' && typeof last === 'string') joined[joined.length - 1] = last + piece;
    else joined.push(piece);
  }
  const [first, last] = [joined[0], joined.at(-1)];
  if (typeof first === 'string') joined[0] = first.trimStart();
  if (typeof last === 'string') joined[joined.length - 1] = String(joined.at(-1)).trimEnd();
  const some = joined.filter((piece) => piece !== '');
  if (some.length === 0) return '';
  return some.length === 1 ? (some[0] ?? '') : said('values:joined', { pieces: some });
}
