import type { Reading } from '@tolvek/core/access';
import { prepareKeeping, withoutTelling } from '@tolvek/core/form';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import type { RequestRow } from './queries.ts';

/**
 * The rules of a request’s release over the fields of its register. Releases never change, but the
 * register’s fields do. `to`: what whoever changes the request may read; nothing else is told them.
 */
export const keepingOf = (
  db: Reader,
  request: RequestRow,
  register: RegisterRow,
  to?: Pick<Reading, 'mayHear' | 'mayKnow'>,
): ReturnType<typeof prepareKeeping> => {
  const { parts, rules } = releaseById(db, request.releaseId).release.design;
  const form = { fields: register.fields, parts, rules };
  if (!to) return prepareKeeping(form);
  const spoken = withoutTelling(form, (sink) => to.mayHear(sink));
  return prepareKeeping({ ...form, rules: spoken }, (name) => to.mayKnow(name));
};
