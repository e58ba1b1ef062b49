import { DirectoryRefusal, type Json, type Resource } from '@tolvek/core/directory';
import { type Said, said } from '@tolvek/words';
import { DIRECTORY } from '../people/kept.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { aTurn } from '../platform/turns.ts';
import { by, type Work, write } from '../platform/work.ts';
import { type Change, type Changed, perform } from './perform.ts';
import { STORES } from './stores.ts';

/** The most operations of one Bulk. */
export const MOST_OPERATIONS = 1_000;
/** Operations that are done in one write. */
const AT_ONCE = 100;

const REQUEST = 'urn:ietf:params:scim:api:messages:2.0:BulkRequest';
const RESPONSE = 'urn:ietf:params:scim:api:messages:2.0:BulkResponse';

type Method = Change['method'];
const isMethod = (word: unknown): word is Method =>
  word === 'POST' || word === 'PUT' || word === 'PATCH' || word === 'DELETE';

interface Operation {
  readonly method: Method;
  readonly path: string;
  readonly bulkId: string | null;
  readonly version: string | null;
  readonly data: unknown;
}

/** What is told of an operation that did not go. */
export type Telling = (error: unknown) => { readonly status: number; readonly body: Resource };

const syntax = (reason: Said): DirectoryRefusal => new DirectoryRefusal(400, 'invalidSyntax', reason);

function operationsIn(sent: unknown): { readonly operations: readonly Operation[]; readonly failOnErrors: number } {
  const body = (typeof sent === 'object' && sent !== null ? sent : {}) as Readonly<Record<string, unknown>>;
  const { schemas, Operations: operations, failOnErrors = 0 } = body;
  if (!Array.isArray(schemas) || !schemas.includes(REQUEST) || !Array.isArray(operations))
    throw syntax(said('scim:notABulk'));
  if (operations.length > MOST_OPERATIONS)
    throw new DirectoryRefusal(413, 'tooMany', said('scim:manyOperations', { most: MOST_OPERATIONS }));
  return {
    failOnErrors: typeof failOnErrors === 'number' && failOnErrors > 0 ? failOnErrors : 0,
    operations: operations.map((each: unknown) => {
      const { method, path, bulkId, version, data } = (each ?? {}) as Readonly<Record<string, unknown>>;
      const verb = typeof method === 'string' ? method.toUpperCase() : '';
      if (!isMethod(verb) || typeof path !== 'string') throw syntax(said('scim:notABulk'));
      if (verb === 'POST' && typeof bulkId !== 'string') throw syntax(said('scim:noBulkId'));
      return {
        ...{ method: verb, path, data },
        bulkId: typeof bulkId === 'string' ? bulkId : null,
        version: typeof version === 'string' ? version : null,
      };
    }),
  };
}

const NAMES_BULK = /^bulkId:(.+)$/;

/** The operations that an operation names, by their bulk ids: in its path and in any text of its data. */
function namedBy({ path, data }: Operation): ReadonlySet<string> {
  const found = new Set<string>();
  const look = (value: unknown): void => {
    if (typeof value === 'string') {
      const [, id] = NAMES_BULK.exec(value) ?? [];
      if (id !== undefined) found.add(id);
    } else if (typeof value === 'object' && value !== null) for (const each of Object.values(value)) look(each);
  };
  look(path.split('/').at(-1));
  look(data);
  return found;
}

/** The same with ids in the place of bulk ids. @throws DirectoryRefusal 409 for one of which nothing was made */
function resolved<T>(value: T, ids: ReadonlyMap<string, string>): T {
  if (typeof value === 'string') {
    const [, name] = NAMES_BULK.exec(value) ?? [];
    if (name === undefined) return value;
    const id = ids.get(name);
    if (id === undefined) throw new DirectoryRefusal(409, 'invalidValue', said('scim:lostBulkId', { id: name }));
    return id as T;
  }
  if (Array.isArray(value)) return value.map((each: unknown) => resolved(each, ids)) as T;
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, resolved(each as unknown, ids)])) as T;
  return value;
}

/**
 * The order in which operations are done: as they were sent, but each behind what it names (RFC 7644 §3.7.2). Those
 * that name each other in a circle come last, and fail.
 */
export function orderOf(
  operations: readonly { readonly bulkId: string | null; readonly names: ReadonlySet<string> }[],
) {
  const madeBy = new Map(
    operations.flatMap(({ bulkId }, place) => (bulkId === null ? [] : [[bulkId, place] as const])),
  );
  const order: number[] = [];
  const state = new Map<number, 'begun' | 'done'>();
  for (const [start] of operations.entries()) {
    // By hand in place of calls within calls: a chain may be as long as the whole.
    const open: { readonly place: number; readonly before: number[] }[] = [];
    const enter = (place: number): void => {
      if (state.has(place)) return;
      state.set(place, 'begun');
      const names = operations[place]?.names ?? new Set();
      open.push({ place, before: [...names].flatMap((name) => madeBy.get(name) ?? []).filter((at) => at !== place) });
    };
    enter(start);
    for (let last = open.at(-1); last; last = open.at(-1)) {
      const next = last.before.shift();
      if (next !== undefined) enter(next);
      else {
        open.pop();
        state.set(last.place, 'done');
        order.push(last.place);
      }
    }
  }
  return order;
}

interface Bulk {
  readonly base: string;
  readonly telling: Telling;
  readonly ids: Map<string, string>;
  readonly keptOut: string[];
}

/** One operation in a stretch of its own: what fails leaves nothing behind. */
function does(work: Work, { base, telling, ids, keptOut }: Bulk, operation: Operation): Resource {
  const { method, bulkId, version } = operation;
  const told = { method, ...(bulkId === null ? {} : { bulkId }) };
  try {
    const {
      id,
      resource,
      keptOut: out,
    } = work.tx.transaction(() => perform(work, base, changeOf(operation, ids, version)));
    if (bulkId !== null) ids.set(bulkId, id);
    if (out !== null) keptOut.push(out);
    return { ...told, ...placed(resource, operation, base, id), status: statusOf(operation, resource) };
  } catch (error) {
    const { status, body } = telling(error);
    const location: Resource = method === 'POST' ? {} : { location: `${base}${operation.path}` };
    return { ...told, ...location, status: String(status), response: body as Json };
  }
}

const statusOf = ({ method }: Operation, resource: Changed['resource']): string =>
  method === 'POST' ? '201' : resource === null ? '204' : '200';

function placed(resource: Changed['resource'], { path }: Operation, base: string, id: string): Resource {
  const { location, version } = (resource?.meta ?? {}) as Resource;
  return {
    location: location ?? `${base}/${path.split('/')[1] ?? ''}/${id}`,
    ...(version === undefined ? {} : { version }),
  };
}

function changeOf(operation: Operation, ids: ReadonlyMap<string, string>, version: string | null): Change {
  const { method, path, data } = operation;
  const [, endpoint, id = '', ...more] = path.split('/');
  const store = STORES.find(({ type }) => type.endpoint === `/${endpoint}`);
  if (!store || more.length > 0 || (method === 'POST') !== (id === ''))
    throw new DirectoryRefusal(400, 'invalidPath', said('scim:noSuchPlace', { path }));
  return { method, store, id: resolved(id, ids), sent: resolved(data, ids), ifMatch: version };
}

/**
 * Does the operations of a Bulk (RFC 7644 §3.7), a hundred in a write: each all or nothing, and those after it go on
 * unless so many failed as may. Returns the answer.
 *
 * @throws DirectoryRefusal 400 for what is no Bulk, 413 for one of too many operations
 */
export async function bulk(house: House, base: string, sent: unknown, telling: Telling): Promise<Resource> {
  const { operations, failOnErrors } = operationsIn(sent);
  const order = orderOf(operations.map((each) => ({ bulkId: each.bulkId, names: namedBy(each) })));
  const answers: (Resource | undefined)[] = operations.map(() => undefined);
  const whole: Bulk = { base, telling, ids: new Map(), keptOut: [] };
  let failed = 0;
  const isOver = (): boolean => failOnErrors > 0 && failed >= failOnErrors;
  for (let from = 0; from < order.length && !isOver(); from += AT_ONCE) {
    const before = { ids: new Map(whole.ids), failed };
    await patiently(house, () => {
      // Tried again after a locked database, it begins where it began.
      whole.ids.clear();
      for (const [name, id] of before.ids) whole.ids.set(name, id);
      failed = before.failed;
      write(house, (opened) => {
        const work = by(opened, DIRECTORY);
        for (const place of order.slice(from, from + AT_ONCE)) {
          const operation = operations[place];
          if (!operation || isOver()) continue;
          const answered = does(work, whole, operation);
          answers[place] = answered;
          if (Number(answered.status) >= 400) failed += 1;
        }
      });
    });
    await aTurn('long work');
  }
  for (const id of whole.keptOut) house.live.endOf(id);
  return { schemas: [RESPONSE], Operations: answers.filter((each) => each !== undefined) };
}
