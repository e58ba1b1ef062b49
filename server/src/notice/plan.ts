import { type NoticePlan, USUAL_NOTICES } from '@tolvek/core/telling';
import { releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { ShownRow } from '../request/queries.ts';

/** What the form of a request tells whom, as it is in force now. */
export const noticesOf = (db: Reader, { formId }: Pick<ShownRow, 'formId'>): NoticePlan =>
  releaseInForce(db, formId)?.design.notices ?? USUAL_NOTICES;
