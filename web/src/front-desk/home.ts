/** Some of a list that stand together, and what they stand under; empty: under nothing. */
export interface Together<T> {
  readonly head: string;
  readonly items: readonly T[];
}

/** A list by what each of it stands under, in the order in which that is met first. */
function together<T>(items: readonly T[], headOf: (item: T) => string): readonly Together<T>[] {
  const found = new Map<string, T[]>();
  for (const item of items) {
    const head = headOf(item);
    const known = found.get(head);
    if (known) known.push(item);
    else found.set(head, [item]);
  }
  return [...found].map(([head, of]) => ({ head, items: of }));
}

/** Forms under their headings, by the alphabet of a language; those under none come last. */
export function underHeadings<T extends { readonly topic: string }>(
  forms: readonly T[],
  language: string,
): readonly Together<T>[] {
  const { compare } = new Intl.Collator(language);
  return [...together(forms, ({ topic }) => topic)].sort((a, b) =>
    a.head === '' || b.head === '' ? Number(a.head === '') - Number(b.head === '') : compare(a.head, b.head),
  );
}

/** From so many requests on they stand under their stages. */
const MANY = 6;

/** One’s requests by where they stand, the newest first: a few stand together, and say it themselves. */
export const byStage = <T extends { readonly stage: string }>(requests: readonly T[]): readonly Together<T>[] => {
  const found = together(requests, ({ stage }) => stage);
  return requests.length < MANY || found.length < 2 ? [{ head: '', items: requests }] : found;
};
