import type { NameOf } from '@tolvek/core/register';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { termName } from '../vocabulary/queries.ts';
import { requestName } from './references.ts';

/** What people, terms and requests are called, looked up when it is asked. */
export const nameOf =
  (db: Reader): NameOf =>
  (id, by) =>
    by ? requestName(db, id, by) : id.includes('/') ? termName(db, id) : personById(db, id)?.name;
