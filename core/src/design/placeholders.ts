/** The fields that a text names in braces, in their order: `{visitor}`. */
export const placeholdersIn = (text: string): readonly string[] =>
  [...text.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => name);
