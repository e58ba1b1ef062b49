/**
 * What a record holds under a key, and nothing of what every object has: `constructor` is a key
 * like any other.
 */
export const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

/**
 * Whether every object has something of this name already: no key that is made anew is called so.
 */
export const isOfEveryObject = (key: string): boolean => key in Object.prototype;
