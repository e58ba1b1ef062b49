/** Letters that may be wrong in a word of a length; none in short ones, which would be anything. */
export const faultsIn = (word: string): number => (word.length < 4 ? 0 : word.length < 8 ? 1 : 2);

/**
 * How many letters two words differ by: left out, too many, others, or two that changed places (Damerau 1964, as restricted
 * by Lowrance and Wagner 1975); more than `most` is not looked at further.
 */
export function faultsBetween(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let last: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, at) => at);
  for (let i = 1; i <= a.length; i += 1) {
    const next = [i];
    for (let j = 1; j <= b.length; j += 1) {
      const other = a[i - 1] === b[j - 1] ? 0 : 1;
      let least = Math.min((row[j] as number) + 1, (next[j - 1] as number) + 1, (row[j - 1] as number) + other);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        least = Math.min(least, (last[j - 2] as number) + 1);
      next.push(least);
    }
    if (Math.min(...next) > most) return most + 1;
    last = row;
    row = next;
  }
  return row[b.length] as number;
}
