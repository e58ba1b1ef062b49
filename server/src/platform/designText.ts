import { customType } from 'drizzle-orm/sqlite-core';
import { LRUCache } from 'lru-cache';

/** What was read, by its text; for 32 million signs of it. */
const read = new LRUCache<string, object>({
  maxSize: 32 * 1024 * 1024,
  sizeCalculation: (_, text) => Math.max(1, text.length),
});

function frozen<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const each of Object.values(value)) frozen(each);
  }
  return value;
}

/**
 * JSON that is read far more often than it changes: designs, fields, stages. The same text gives
 * the same object, frozen, so that it is parsed once, and what core made ready for it is used again.
 * The text itself is what it is known by, whoever stored it.
 */
export const designText = <T extends object>() =>
  customType<{ data: T; driverData: string }>({
    dataType: () => 'text',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => {
      let found = read.get(text);
      if (!found) read.set(text, (found = frozen(JSON.parse(text) as object)));
      return found as T;
    },
  })();
