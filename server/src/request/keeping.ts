import type { Protection } from '@tolvek/core/access';
import { prepareKeeping, withoutTelling } from '@tolvek/core/form';
import type { Values } from '@tolvek/core/register';
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
  to?: { readonly protection: Protection; readonly mayRead: (field: string) => boolean },
): ReturnType<typeof prepareKeeping> => {
  const { parts, rules } = releaseById(db, request.releaseId).release.design;
  const form = { fields: register.fields, parts, rules };
  if (!to) return prepareKeeping(form);
  const { protection, mayRead } = to;
  const spoken = withoutTelling(form, (sink) => protection.tells(sink).every(mayRead));
  return prepareKeeping({ ...form, rules: spoken }, mayRead);
};

/** Values of some fields, as if the others were empty. */
export const onlyOf = (values: Values, keys: ReadonlySet<string>): Values =>
  Object.fromEntries(Object.entries(values).filter(([key]) => keys.has(key)));
