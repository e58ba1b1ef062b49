/** Words without accents, in small letters. */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Whether a text has all words of what is sought, each at the start of one of its own, in whatever letters. */
export function fits(sought: string, text: string): boolean {
  const words = plain(text).split(/[^\p{L}\p{N}]+/u);
  return plain(sought)
    .split(/[^\p{L}\p{N}]+/u)
    .every((each) => words.some((word) => word.startsWith(each)));
}
