/**
 * JSON with the parts of every object in one order, so that the same content is the same text
 * however its sender wrote it. Parts that are undefined are left out, as in JSON.
 */
export const canonicalJson = (value: unknown): string => JSON.stringify(value, inOrder) ?? 'null';

function inOrder(_key: string, value: unknown): unknown {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0));
  // An object without a prototype: a part called “__proto__” is a part like any other.
  return Object.assign(Object.create(null), Object.fromEntries(entries)) as unknown;
}
