/**
 * Whether two pieces of a design say the same: the order of settings says nothing, that of lists
 * does.
 */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b))
    return (
      Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((item, index) => isSame(item, b[index]))
    );
  const [one, other] = [a as Readonly<Record<string, unknown>>, b as Readonly<Record<string, unknown>>];
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].every((key) => isSame(one[key], other[key]));
}
