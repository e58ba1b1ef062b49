import { labelOf } from '@tolvek/core/access';
import type { NameOf } from '@tolvek/core/register';
import type { Language } from '@tolvek/words/speech';
import { eq, sql } from 'drizzle-orm';
import { nameKnown } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { type Registers, registersIn } from '../register/queries.ts';
import { termName } from '../vocabulary/queries.ts';
import { protectionFor } from './protection.ts';
import type { RequestRow } from './queries.ts';
import { requests } from './tables.ts';

/** What people, terms and requests are called, looked up when it is asked; in a language, where one is said. */
export const nameOf =
  (db: Reader, registers = registersIn(db), language: Language | null = null): NameOf =>
  (id, by) =>
    by
      ? requestName(db, id, by, registers, language)
      : id.includes('/')
        ? termName(db, id, language)
        : nameKnown(db, id);

export type Target = Pick<
  RequestRow,
  'id' | 'number' | 'values' | 'requesterId' | 'phase' | 'stage' | 'releaseId' | 'trial'
>;

export const TARGET = {
  id: requests.id,
  number: requests.number,
  values: requests.values,
  requesterId: requests.requesterId,
  phase: requests.phase,
  stage: requests.stage,
  releaseId: requests.releaseId,
  trial: requests.trial,
};

export const named = prepared((db) =>
  db
    .select({ ...TARGET, registerId: requests.registerId })
    .from(requests)
    .where(eq(requests.id, sql.placeholder('id')))
    .prepare(),
);

/** What a request is called for whoever may read a reference to it. */
function requestName(
  db: Reader,
  id: string,
  by: readonly string[],
  registers: Registers,
  language: Language | null,
): string | undefined {
  const row = named(db).get({ id });
  if (!row) return undefined;
  const protection = protectionFor(db, registers.byId(row.registerId), row, registers);
  return labelOf(protection, row, by, nameOf(db, registers, language));
}
