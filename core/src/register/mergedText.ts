import { said, type Words } from '@tolvek/words';

/**
 * A text with the values that it names in braces: `{visitor}`. What is not told is told by dots, so that the sentence
 * still reads. `toldOf`: a value in words; null for none.
 */
export function mergedText(text: string, toldOf: (key: string) => Words | null): Words {
  const pieces = text
    .split(/\{(\w+)\}/)
    .map((piece, place): Words => (place % 2 === 0 ? piece : (toldOf(piece) ?? '…')));
  return pieces.length === 1 ? text : said('values:joined', { pieces });
}
