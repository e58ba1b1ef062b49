/** The keys in braces in a text: `{visitor}`. */
export const placeholdersIn = (text: string): readonly string[] =>
  [...text.matchAll(/\{(\w+)\}/g)].map(([, key]) => key ?? '');
