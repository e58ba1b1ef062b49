/** Most numbers that are looked for in one subject. */
const MOST = 5;

/** The numbers of requests that a subject names, in capitals, each once, in their order. */
export function numbersNamed(subject: string): readonly string[] {
  const found = subject.match(/(?<![\p{L}\p{N}-])\p{Lu}[\p{Lu}\p{N}]{0,15}-\d{3,12}(?![\p{L}\p{N}-])/giu) ?? [];
  return [...new Set(found.map((each) => each.toUpperCase()))].slice(0, MOST);
}

/** The ids of notices in Message-IDs as headers name them, the last one first: it is the one that is answered. */
export const noticesNamed = (ids: string): readonly string[] =>
  [...ids.matchAll(/<([0-9a-z-]{20,40})@tolvek>/g)].flatMap(([, id]) => id ?? []).reverse();
