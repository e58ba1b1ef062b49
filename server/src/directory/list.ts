import { ALL, DirectoryRefusal, orderBy, type Resource, readFilter, shown, type Wanted } from '@tolvek/core/directory';
import { said } from '@tolvek/words';
import type { Reader } from '../platform/database.ts';
import { aTurn } from '../platform/turns.ts';
import { type Store, withVersion } from './stores.ts';

/** How resources are asked for (RFC 7644 §3.4.2). */
export interface Asked {
  readonly filter: string | null;
  readonly sortBy: string | null;
  readonly isFalling: boolean;
  /** From 1 on. */
  readonly startIndex: number;
  readonly count: number;
  readonly wanted: Wanted;
}

/** The most resources that are answered at a time. */
export const PAGE = 100;
/** How long a filter may be, letters. */
const LONGEST_FILTER = 4_000;

/** What is asked for in an address, or in the body of a search. */
export function askedBy(given: Readonly<Record<string, unknown>>): Asked {
  const text = (name: string): string | null => {
    const value = given[name];
    return typeof value === 'string' && value.trim() !== '' ? value : null;
  };
  const whole = (name: string, otherwise: number): number => {
    const value = Number(given[name] ?? otherwise);
    return Number.isInteger(value) ? value : otherwise;
  };
  const paths = (name: string): readonly string[] => {
    const value = given[name];
    const all: readonly unknown[] = Array.isArray(value) ? value : typeof value === 'string' ? value.split(',') : [];
    return all.flatMap((each) => (typeof each === 'string' && each.trim() !== '' ? [each.trim()] : []));
  };
  const filter = text('filter');
  if (filter !== null && filter.length > LONGEST_FILTER)
    throw new DirectoryRefusal(400, 'invalidFilter', said('scim:longFilter', { most: LONGEST_FILTER }));
  return {
    ...{ filter, sortBy: text('sortBy'), isFalling: text('sortOrder')?.toLowerCase() === 'descending' },
    startIndex: Math.max(1, whole('startIndex', 1)),
    count: Math.min(PAGE, Math.max(0, whole('count', PAGE))),
    wanted: { only: paths('attributes'), without: paths('excludedAttributes') },
  };
}

/** Resources that are read at a time when all are gone through. */
const AT_ONCE = 200;

/** All resources, a few at a time, so that nobody else waits for it. */
async function* all(db: Reader, base: string, store: Store): AsyncGenerator<Resource> {
  for (let after = ''; ; ) {
    const some = store.after(db, base, after, AT_ONCE);
    yield* some;
    const last = some.at(-1);
    if (some.length < AT_ONCE || !last) return;
    after = String(last.id);
    await aTurn('long work');
  }
}

/** What a list of resources is called. */
export const LIST = 'urn:ietf:params:scim:api:messages:2.0:ListResponse';

/** The answer to a look for resources. @throws DirectoryRefusal 400 */
export async function list(db: Reader, base: string, store: Store, asked: Asked): Promise<Resource> {
  const { type } = store;
  const { filter, sortBy, isFalling, startIndex, count, wanted } = asked;
  const from = startIndex - 1;
  if (filter === null && sortBy === null)
    return answer(store, store.at(db, base, from, count), store.count(db), startIndex, wanted);
  const read = filter === null ? null : readFilter(type, filter);
  const certain = read ? store.having(db, base, read.certain) : null;
  const found: Resource[] = [];
  for await (const resource of certain ?? all(db, base, store))
    if (!read || read.matches(resource)) found.push(resource);
  if (sortBy !== null) found.sort(orderBy(type, sortBy, isFalling));
  return answer(store, found.slice(from, from + count), found.length, startIndex, wanted);
}

function answer(
  { type }: Store,
  page: readonly Resource[],
  totalResults: number,
  startIndex: number,
  wanted: Wanted,
): Resource {
  return {
    schemas: [LIST],
    ...{ totalResults, startIndex, itemsPerPage: page.length },
    Resources: page.map((each) => shown(type, withVersion(each), wanted)),
  };
}

/** One resource as far as it is wanted. */
export const one = ({ type }: Store, resource: Resource, given: Readonly<Record<string, unknown>>): Resource =>
  shown(type, resource, Object.keys(given).length > 0 ? askedBy(given).wanted : ALL);
