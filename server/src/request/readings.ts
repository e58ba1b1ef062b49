import { type RequestReader, readerScope, readersMeaning } from '@tolvek/core/access';
import { parseExpression } from '@tolvek/core/expression';
import type { Viewer } from '@tolvek/core/people';
import { and, eq, type SQL, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { listed } from '../platform/prepared.ts';
import type { RegisterRow } from '../register/queries.ts';
import { splitCondition } from './conditionSql.ts';
import { countedIn, eachRequest } from './eachRequest.ts';
import { momentOf } from './moment.ts';
import type { ShownRow } from './queries.ts';
import { readings, requests } from './tables.ts';

/** The readers of whole requests that mean somebody, in any register, by their names in `readings`. */
const readersFor = (registers: readonly Pick<RegisterRow, 'id' | 'access'>[], viewer: Viewer): readonly string[] =>
  registers.flatMap(({ id, access }) =>
    readersMeaning(access.readers ?? [], viewer).map((reader) => readerName(id, reader)),
  );

const readerName = (register: string, { id }: Pick<RequestReader, 'id'>): string => `${register} ${id}`;

/** The ids of requests that somebody reads by what stands in them: as a part of a query; nothing where there are no such readers. */
export function readAlong(registers: readonly Pick<RegisterRow, 'id' | 'access'>[], viewer: Viewer): SQL | undefined {
  const names = readersFor(registers, viewer);
  return names.length === 0
    ? undefined
    : sql`(select ${readings.requestId} from ${readings} where ${readings.reader} in (select value from json_each(${listed(names)})))`;
}

/** Finds out anew who reads a request by what stands in it. */
export function readAnew(tx: Transaction, request: ShownRow, register: RegisterRow): void {
  const { readers = [] } = register.access;
  if (readers.length === 0 || request.trial) return;
  const { holds } = momentOf(tx, request, register);
  tx.delete(readings).where(eq(readings.requestId, request.id)).run();
  for (const reader of readers)
    if (holds(reader.when))
      tx.insert(readings)
        .values({ reader: readerName(register.id, reader), requestId: request.id })
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
        sql`insert into ${readings} (reader, request_id) select ${name}, ${requests.id} from ${requests} where ${among}`,
      );
      continue;
    }
    for (const request of [...eachRequest(tx, among)])
      if (momentOf(tx, request, register).holds(reader.when))
        tx.insert(readings).values({ reader: name, requestId: request.id }).run();
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
