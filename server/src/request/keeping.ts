import type { Reading } from '@tolvek/core/access';
import { prepareKeeping, withoutTelling } from '@tolvek/core/form';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { fieldsOf } from './fields.ts';
import type { RequestRow } from './queries.ts';

/**
 * The rules of a request’s release over its fields. `to`: what whoever changes the request may read; nothing else is told them.
 */
export const keepingOf = (
  db: Reader,
  request: RequestRow,
  register: RegisterRow,
  to?: Pick<Reading, 'mayHear' | 'mayKnow'>,
): ReturnType<typeof prepareKeeping> => {
  const { parts, rules } = releaseById(db, request.releaseId).release.design;
  const form = { fields: fieldsOf(db, register, request), parts, rules };
  if (!to) return prepareKeeping(form);
  const spoken = withoutTelling(form, (sink) => to.mayHear(sink));
  return prepareKeeping({ ...form, rules: spoken }, (name) => to.mayKnow(name));
};
