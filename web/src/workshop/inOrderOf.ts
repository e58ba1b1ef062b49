/** Items in an order that was held, by their keys: those that are gone left out, those that came since at the end. */
export function inOrderOf<T>(held: readonly string[], items: readonly T[], keyOf: (item: T) => string): readonly T[] {
  const place = new Map(held.map((key, at) => [key, at]));
  const placeOf = (item: T): number => place.get(keyOf(item)) ?? held.length;
  return [...items].sort((a, b) => placeOf(a) - placeOf(b));
}
