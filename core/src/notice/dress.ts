import type { Letter, LetterItem } from './letter.ts';

/** A subject on one line, as the header of an email needs it. */
export const subjectLine = (subject: string): string => subject.replace(/[\r\n]+/g, ' ');

export interface DressedLetter {
  readonly text: string;
  readonly html: string;
}

/** What an email carries besides its letter: how the desk signs, its colour, and the language it is written in (BCP 47). */
export interface Envelope {
  readonly signature: string;
  readonly language: string;
  /** Of the button: six digits in hexadecimal after `#`. */
  readonly colour: string;
  /** Where one of several things leads. */
  readonly urlOf?: (item: LetterItem) => string;
}

/** What can be put into a layout. */
export const SLOTS_OF_LAYOUT = [
  'language',
  'preview',
  'content',
  'signature',
  'words',
  'label',
  'url',
  'colour',
] as const;
type LayoutSlot = (typeof SLOTS_OF_LAYOUT)[number];

/** On both sides of the name of a slot, in what a layout is rendered to; no text holds it. */
export const MARK = '⟦';

/** HTML with what is put in between: text, slot, text, and so on. */
export type Piece = readonly string[];

/** Cuts rendered HTML at its slots. @throws Error for a slot that there is not. */
export function pieceOf(html: string): Piece {
  const piece = html.split(MARK);
  for (const [place, name] of piece.entries())
    if (place % 2 === 1 && !(SLOTS_OF_LAYOUT as readonly string[]).includes(name))
      throw new Error(`There is no slot “${name}”.`);
  return piece;
}

/** How emails look, piece by piece; `whole`: around all the others. */
export interface Layout {
  readonly whole: Piece;
  readonly paragraph: Piece;
  /** Under a button, and at the end. */
  readonly small: Piece;
  readonly list: Piece;
  readonly item: Piece;
  readonly facts: Piece;
  readonly fact: Piece;
  readonly button: Piece;
}

/** A piece with what is put in; the values are HTML. */
function filled(piece: Piece, values: Readonly<Partial<Record<LayoutSlot, string>>>): string {
  let html = piece[0] ?? '';
  for (let place = 1; place < piece.length; place += 2)
    html += (values[piece[place] as LayoutSlot] ?? '') + (piece[place + 1] ?? '');
  return html;
}

/** So many signs of a letter are shown beside its subject in a list of emails. */
const PREVIEWED = 120;

/** A letter as plain text and as HTML that says the same. `url`: where its button leads. */
export function dressLetter(
  letter: Letter,
  url: string,
  { signature, language, colour, urlOf }: Envelope,
  layout: Layout,
): DressedLetter {
  const { greeting, paragraphs, facts, action, reply = '' } = letter;
  const items = (letter.items ?? []).map((item) => ({ words: item.words, url: urlOf?.(item) ?? url }));
  const text = [
    greeting,
    ...paragraphs,
    items.map((item) => `- ${item.words}\n  ${item.url}`).join('\n'),
    facts.map((fact) => `${fact.label}: ${fact.shown}`).join('\n'),
    `${action.label}:\n${url}${action.note ? `\n${action.note}` : ''}`,
    reply,
    signature,
  ];
  const small = (words: string): string => (words ? filled(layout.small, { words: escaped(words) }) : '');
  let content = filled(layout.paragraph, { words: escaped(greeting) });
  for (const paragraph of paragraphs) if (paragraph) content += filled(layout.paragraph, { words: escaped(paragraph) });
  if (items.length > 0) {
    let list = '';
    for (const item of items)
      list += filled(layout.item, { words: escaped(item.words), url: escaped(item.url), colour });
    content += filled(layout.list, { content: list });
  }
  if (facts.length > 0) {
    let rows = '';
    for (const fact of facts) rows += filled(layout.fact, { label: escaped(fact.label), words: escaped(fact.shown) });
    content += filled(layout.facts, { content: rows });
  }
  content += filled(layout.button, { words: escaped(action.label), url: escaped(url), colour });
  content += small(action.note) + small(reply);
  const preview = escaped((paragraphs.find(Boolean) ?? greeting).slice(0, PREVIEWED).replace(/\s+/g, ' '));
  return {
    text: `${text.filter(Boolean).join('\n\n')}\n`,
    html: filled(layout.whole, { language, preview, content, signature: escaped(signature) }),
  };
}

const escaped = (text: string): string =>
  // Most texts have none of these.
  !/[&<>"'\n]/.test(text)
    ? text
    : text
        .replace(
          /[&<>"']/g,
          (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[sign] ?? sign,
        )
        .replace(/\n/g, '<br>');
