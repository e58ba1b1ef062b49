import { createHash } from 'node:crypto';
import { type Findable, findableIn, PLACES, personTag, wordsOf } from '@tolvek/core/find';
import { fileName } from '@tolvek/core/register';
import type { Happening } from '@tolvek/core/request';
import { and, asc, count, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import type { Work } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { fieldsOf } from '../request/fields.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { history, requests } from '../request/tables.ts';
import { findable, findDue, findPlaces } from './tables.ts';

/** Places that are told apart, and rows that each request may have: keys of fields beyond that are not found by. */
export const ROWS_EACH = 1 << 14;

/** What happens without any words. */
const SILENT: ReadonlySet<Happening['kind']> = new Set([
  ...(['due', 'rang', 'seat', 'silent', 'stage', 'replanned', 'links-ended', 'link-sent', 'undelivered'] as const),
  ...(['followed', 'unfollowed', 'shared', 'unshared', 'nobody-decides'] as const),
]);

const addDue = prepared((db) =>
  db
    .insert(findDue)
    .values({ requestId: sql.placeholder('id') })
    .onConflictDoNothing()
    .prepare(),
);

/** Notes that the words of a request have to be looked at anew: within a second or two, many together. */
export function followWords({ tx }: Work, { id, trial }: ShownRow, { kind }: Happening): undefined {
  if (!trial && !SILENT.has(kind)) addDue(tx).run({ id });
}

const numbered = prepared((db) =>
  db
    .select()
    .from(findable)
    .where(eq(findable.requestId, sql.placeholder('id')))
    .prepare(),
);
const addNumbered = prepared((db) =>
  db
    .insert(findable)
    .values({ requestId: sql.placeholder('id'), hash: sql.placeholder('hash') })
    .prepare(),
);
const hashes = prepared((db) =>
  db
    .update(findable)
    .set({ hash: sql`${sql.placeholder('hash')}` })
    .where(eq(findable.n, sql.placeholder('n')))
    .prepare(),
);
const placeNamed = prepared((db) =>
  db
    .select({ id: findPlaces.id })
    .from(findPlaces)
    .where(eq(findPlaces.key, sql.placeholder('key')))
    .prepare(),
);
const comments = prepared((db) =>
  db
    .select({ actorId: history.actorId, comment: history.comment })
    .from(history)
    .where(and(eq(history.requestId, sql.placeholder('id')), isNotNull(history.comment)))
    .prepare(),
);

/** The number of the row that has all words of a request, whatever their places; that of a place is added to it. */
const rowsFrom = (n: number): number => n * ROWS_EACH;

/** What was said to a request, with the names of the files that came along. */
export const saidTo = (db: Reader, requestId: string) =>
  comments(db)
    .all({ id: requestId })
    .map((entry) => {
      const { text = '', files = [] } = entry.comment ?? {};
      return { entry, text: [text, ...files.map(fileName)].filter(Boolean).join(' · ') };
    });

/** All that a request is found by. */
export function findableOf(db: Reader, request: ShownRow): readonly Findable[] {
  const register = registerById(db, request.registerId);
  return [
    ...findableIn(fieldsOf(db, register, request), request.values),
    { place: PLACES.said, words: new Set(saidTo(db, request.id).flatMap(({ text }) => wordsOf(text))) },
    { place: PLACES.people, words: new Set(peopleOf(request).flatMap(({ words }) => [...words])) },
  ];
}

/** Somebody who has to do with a request. */
interface Party extends Findable {
  readonly as: 'requester' | 'behalf' | 'handler';
  /** Null where nobody has confirmed who asked. */
  readonly id: string | null;
}

/** Who asked for it, on whose behalf, and who handles it. */
export const peopleOf = (request: ShownRow): readonly Party[] =>
  (
    [
      ['requester', request.requesterId],
      ['behalf', request.onBehalfId],
      ['handler', request.handlerId],
    ] as const
  ).flatMap(([as, id]) => {
    const words = id === null ? wordsOf((as === 'requester' && request.claim?.name) || '') : [personTag(id)];
    return words.length === 0 ? [] : [{ as, id, place: PLACES.people, words: new Set(words) }];
  });

/** The number of a place; null where there are too many. */
function placeFor(tx: Transaction, key: string): number | null {
  const known = placeNamed(tx).get({ key });
  if (known) return known.id;
  const last = tx.get<{ readonly n: number }>(sql`select coalesce(max(id), 0) as n from find_places`).n;
  if (last + 1 >= ROWS_EACH) return null;
  tx.insert(findPlaces)
    .values({ id: last + 1, key })
    .run();
  return last + 1;
}

/** Takes the words of a request out of the index. */
function dropWords(tx: Transaction, n: number): void {
  const [from, to] = [rowsFrom(n), rowsFrom(n + 1)];
  const rows = tx.all<{ readonly id: number }>(
    sql`select rowid as id from found where rowid >= ${from} and rowid < ${to}`,
  );
  for (const { id } of rows) tx.run(sql`delete from found where rowid = ${id}`);
}

/** Puts the words of a request into the index, in place of those that it had. */
function keepWords(tx: Transaction, request: ShownRow): void {
  const places = findableOf(tx, request).filter(({ words }) => words.size > 0);
  const texts = places.map(({ place, words }) => [place, [...words].sort().join(' ')] as const);
  const hash = createHash('sha256').update(JSON.stringify(texts)).digest('base64url').slice(0, 22);
  const known = numbered(tx).get({ id: request.id });
  if (known?.hash === hash) return;
  if (known) {
    dropWords(tx, known.n);
    hashes(tx).run({ n: known.n, hash });
  }
  const all = [...new Set(places.flatMap(({ words }) => [...words]))].join(' ');
  const n = known?.n ?? Number(addNumbered(tx).run({ id: request.id, hash }).lastInsertRowid);
  tx.run(sql`insert into found (rowid, words) values (${rowsFrom(n)}, ${all})`);
  for (const [key, text] of texts) {
    const place = placeFor(tx, key);
    if (place !== null) tx.run(sql`insert into found (rowid, words) values (${rowsFrom(n) + place}, ${text})`);
  }
}

const dueFirst = prepared((db) =>
  db.select({ id: findDue.requestId }).from(findDue).orderBy(asc(sql`rowid`)).limit(sql.placeholder('most')).prepare(),
);
const some = prepared((db) => db.select(SHOWN_COLUMNS).from(requests).where(isListed(requests.id, 'ids')).prepare());
const waiting = prepared((db) => db.select({ n: count() }).from(findDue).prepare());

/** How many requests wait for their words to be looked at. */
export const wordsDue = (db: Reader): number => waiting(db).get()?.n ?? 0;

/** Whether any does. */
export const isWordsDue = (db: Reader): boolean => dueFirst(db).get({ most: 1 }) !== undefined;

/** Stand among what is due for the index itself: that it is to be put in order, and that this has begun. */
const ORDER = { begin: '-', goOn: '+' } as const;
/** Pages of the index that are put in order at once. */
const PAGES = 64;

/** Puts a part of the index in order, by which nothing is left of what was taken out of it; whether there is more. */
function putInOrder(tx: Transaction, begins: boolean): boolean {
  const changes = (): number => tx.get<{ readonly n: number }>(sql`select total_changes() as n`).n;
  const before = changes();
  // A negative number begins with all of it, whatever its size (SQLite FTS5, 6.8).
  tx.run(sql`insert into found (found, rank) values ('merge', ${begins ? -PAGES : PAGES})`);
  return begins || changes() - before > 1;
}

/** Looks at the words of some requests that wait for it, those that have waited longest first. */
export function keepSomeWords(tx: Transaction, most: number): void {
  const ids = dueFirst(tx)
    .all({ most })
    .map(({ id }) => id);
  const order = ids.find((id) => id === ORDER.begin || id === ORDER.goOn);
  const goesOn = order !== undefined && putInOrder(tx, order === ORDER.begin);
  const rows = some(tx).all({ ids: listed(ids) });
  const known = new Map(rows.map((row) => [row.id, row]));
  for (const id of ids) {
    const request = known.get(id);
    if (request && !request.trial) keepWords(tx, request);
  }
  tx.delete(findDue).where(inArray(findDue.requestId, ids)).run();
  if (goesOn) addDue(tx).run({ id: ORDER.goOn });
}

/** Takes requests that are deleted out of what is found; what is left of their words goes as the index is put in order after. */
export function dropFound({ tx }: Work, requestIds: readonly string[]): void {
  for (const id of requestIds) {
    const known = numbered(tx).get({ id });
    if (!known) continue;
    dropWords(tx, known.n);
    tx.delete(findable).where(eq(findable.n, known.n)).run();
  }
  tx.delete(findDue)
    .where(inArray(findDue.requestId, [...requestIds]))
    .run();
  addDue(tx).run({ id: ORDER.begin });
}
