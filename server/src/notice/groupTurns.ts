import type { GroupValue } from '@tolvek/core/notice';
import { and, desc, eq } from 'drizzle-orm';
import { registerOfForm } from '../form/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { requestById, SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { noticeTurns } from './tables.ts';

export type Turn = typeof noticeTurns.$inferSelect;

/** What is told of a group at once is not told again when the rest is. */
export const toldAtOnce = (tx: Transaction, { formId, rule }: Pick<Turn, 'formId' | 'rule'>, value: GroupValue): void =>
  void tx
    .delete(noticeTurns)
    .where(isOne({ formId, rule, value: JSON.stringify(value) }))
    .run();

export const isOne = ({ formId, rule, value }: Pick<Turn, 'formId' | 'rule' | 'value'>) =>
  and(eq(noticeTurns.formId, formId), eq(noticeTurns.rule, rule), eq(noticeTurns.value, value));

/** What an email about a group is of: what changed it last, or the newest of the form, where that came by another or is gone. */
export function subjectOf(tx: Reader, { formId, last }: Pick<Turn, 'formId' | 'last'>): ShownRow | undefined {
  const request = last === null ? undefined : requestById(tx, last);
  if (request?.formId === formId) return request;
  return tx
    .select(SHOWN_COLUMNS)
    .from(requests)
    .where(
      and(
        eq(requests.registerId, registerOfForm(tx, formId).id),
        eq(requests.formId, formId),
        eq(requests.trial, false),
      ),
    )
    .orderBy(desc(requests.createdAt), desc(requests.id))
    .limit(1)
    .get();
}
