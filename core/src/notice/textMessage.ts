import type { Letter } from './letter.ts';

/** So many characters of words a text message has at most; where it leads comes after them. */
export const TEXT_LENGTH = 300;

/**
 * A notice as a text message: its words in one line, without what a letter has around them, and where it leads. Where there
 * are too many words it ends between two of them.
 *
 * @param own whether the words are of a form’s own, which say all that is to be said; else the subject says it
 */
export function textMessage({ subject, paragraphs }: Letter, url: string, own: boolean): string {
  const said = (own && paragraphs.length > 0 ? paragraphs.join(' ') : subject).replace(/\s+/g, ' ').trim();
  return `${shortened(said)} ${url}`;
}

function shortened(text: string): string {
  const signs = [...text];
  if (signs.length <= TEXT_LENGTH) return text;
  const cut = signs.slice(0, TEXT_LENGTH - 1).join('');
  const end = cut.lastIndexOf(' ');
  return `${end > 0 ? cut.slice(0, end) : cut}…`;
}

/**
 * The number that a text message is sent to, as networks write it (ITU-T E.164); null for what is none, or one that works in
 * its country alone.
 */
export function textNumber(typed: string): string | null {
  const digits = typed.replace(/[\s()./-]/g, '').replace(/^00/, '+');
  return /^\+[1-9]\d{6,14}$/.test(digits) ? digits : null;
}
