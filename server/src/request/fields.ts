import { fieldsBy } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import type { ShownRow } from './queries.ts';

/** How a request came, and by which release its values are computed. */
export type Came = Pick<ShownRow, 'releaseId' | 'trial'> & Partial<Pick<ShownRow, 'computedBy'>>;

/**
 * The fields of a request: as the release it is computed by computes them, in the words that its
 * register has now. A trial may have fields that its register has not got yet.
 */
export function fieldsOf(db: Reader, register: Pick<RegisterRow, 'fields'>, request: Came): readonly Field[] {
  const { design } = releaseById(db, request.computedBy ?? request.releaseId).release;
  return request.trial ? design.fields : fieldsBy(register.fields, design);
}
