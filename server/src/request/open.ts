import { type Protection, type Relation, relationTo } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import type { NameOf } from '@tolvek/core/register';
import type { Reader } from '../platform/database.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { nameOf } from './names.ts';
import { protectionFor } from './protection.ts';
import { partiesIn, type ShownRow } from './queries.ts';

/** What a look at the fields of a request depends on besides its values. */
interface Access {
  readonly protection: Protection;
  readonly viewer: Viewer;
  readonly relation: Relation;
  readonly nameOf: NameOf;
}

/** Opens a request for a viewer: how they stand to it, and what decides what they may read of it. */
export function openFor(
  db: Reader,
  request: ShownRow,
  viewer: Viewer,
  {
    register = registerById(db, request.registerId),
    names = nameOf(db),
  }: { readonly register?: RegisterRow; readonly names?: NameOf } = {},
): { readonly register: RegisterRow; readonly relation: Relation; readonly access: Access } {
  const relation = relationTo(partiesIn(request, register), viewer);
  return {
    register,
    relation,
    access: { protection: protectionFor(db, register, request), viewer, relation, nameOf: names },
  };
}
