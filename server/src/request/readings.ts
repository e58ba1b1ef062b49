import { type RequestReader, readerScope, readersMeaning } from '@tolvek/core/access';
import { parseExpression } from '@tolvek/core/expression';
import type { Viewer } from '@tolvek/core/people';
import { and, desc, eq, type SQL, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { isListed, listed, prepared, preparedEach } from '../platform/prepared.ts';
import type { RegisterRow } from '../register/queries.ts';
import { splitCondition } from './conditionSql.ts';
import { countedIn, eachRequest } from './eachRequest.ts';
import { momentOf } from './moment.ts';
import type { ShownRow } from './queries.ts';
import { readings, requests } from './tables.ts';

/** A reader of whole requests by its name in `readings`, and the register it reads. */
export interface NamedReader {
  readonly name: string;
  readonly register: string;
}

/** The readers of whole requests that mean somebody, in any register. */
export const readersFor = (
  registers: readonly Pick<RegisterRow, 'id' | 'access'>[],
  viewer: Viewer,
): readonly NamedReader[] =>
  registers.flatMap(({ id, access }) =>
    readersMeaning(access.readers ?? [], viewer).map((reader) => ({ name: readerName(id, reader), register: id })),
  );

const readerName = (register: string, { id }: Pick<RequestReader, 'id'>): string => `${register} ${id}`;

const namesOf = (readers: readonly NamedReader[]): string => listed(readers.map(({ name }) => name));

/** The ids of requests that readers read: as a part of a query; nothing where there are no readers. */
export const readAlong = (readers: readonly NamedReader[]): SQL | undefined =>
  readers.length === 0
    ? undefined
    : sql`(select ${readings.requestId} from ${readings} where ${readings.reader} in (select value from json_each(${namesOf(readers)})))`;

const pageRead = preparedEach(
  (from: 'start' | 'place') => (db) =>
    db
      .selectDistinct({ id: readings.requestId, createdAt: readings.createdAt })
      .from(readings)
      .where(
        and(
          isListed(readings.reader, 'readers'),
          from === 'start'
            ? undefined
            : sql`(${readings.createdAt}, ${readings.requestId}) < (${sql.placeholder('at')}, ${sql.placeholder('id')})`,
        ),
      )
      .orderBy(desc(readings.createdAt), desc(readings.requestId))
      .limit(sql.placeholder('most'))
      .prepare(),
);

/** Some requests that readers read, the newest first, from a place on: where the page before ended. */
export const readFrom = (
  db: Reader,
  readers: readonly NamedReader[],
  place: { readonly at: number; readonly id: string } | null,
  most: number,
): readonly { readonly id: string; readonly createdAt: number }[] =>
  pageRead(place ? 'place' : 'start')(db).all({ readers: namesOf(readers), most, ...place });

const countRead = prepared((db) =>
  db
    .select({ n: sql<number>`count(distinct ${readings.requestId})` })
    .from(readings)
    .where(isListed(readings.reader, 'readers'))
    .prepare(),
);

/** How many requests readers read. */
export const readCount = (db: Reader, readers: readonly NamedReader[]): number =>
  countRead(db).get({ readers: namesOf(readers) })?.n ?? 0;

/** Finds out anew who reads a request by what stands in it. */
export function readAnew(tx: Transaction, request: ShownRow, register: RegisterRow): void {
  const { readers = [] } = register.access;
  if (readers.length === 0 || request.trial) return;
  const { holds } = momentOf(tx, request, register);
  tx.delete(readings).where(eq(readings.requestId, request.id)).run();
  for (const reader of readers)
    if (holds(reader.when))
      tx.insert(readings)
        .values({ reader: readerName(register.id, reader), requestId: request.id, createdAt: request.createdAt })
        .run();
}

/** Finds out which requests of a register its readers read, for all that are there. */
export function readAll(tx: Transaction, register: RegisterRow): void {
  const { readers = [] } = register.access;
  tx.run(sql`delete from ${readings} where ${readings.reader} like ${`${register.id} %`}`);
  for (const reader of readers) {
    const name = readerName(register.id, reader);
    const parsed = parseExpression(reader.when);
    if (!parsed.ok) continue;
    const { where, rest } = splitCondition(parsed.value, register.fields, readerScope(register.fields));
    const among = and(countedIn(register.id, 'all'), where);
    if (!rest) {
      tx.run(
        sql`insert into ${readings} (reader, request_id, created_at) select ${name}, ${requests.id}, ${requests.createdAt} from ${requests} where ${among}`,
      );
      continue;
    }
    for (const request of [...eachRequest(tx, among)])
      if (momentOf(tx, request, register).holds(reader.when))
        tx.insert(readings).values({ reader: name, requestId: request.id, createdAt: request.createdAt }).run();
  }
}

/** How many requests of a register meet a condition. */
export function meetingCount(db: Reader, register: RegisterRow, when: string): number {
  const parsed = parseExpression(when);
  if (!parsed.ok) return 0;
  const { where, rest } = splitCondition(parsed.value, register.fields, readerScope(register.fields));
  const among = and(countedIn(register.id, 'all'), where);
  if (!rest) return db.select({ n: sql<number>`count(*)` }).from(requests).where(among).get()?.n ?? 0;
  let n = 0;
  for (const request of eachRequest(db, among)) if (momentOf(db, request, register, true).holds(when)) n += 1;
  return n;
}
