import { openFields, type Protection, type Relation, relationTo, type ValueChange } from '@tolvek/core/access';
import { protectionOf } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { NameOf } from '@tolvek/core/register';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { nameOf } from './names.ts';
import { partiesIn, type RegisterRow, registerById, type ShownRow } from './queries.ts';

/** What a look at the fields of a request depends on besides its values. */
interface Access {
  readonly protection: Protection;
  readonly viewer: Viewer;
  readonly relation: Relation;
  readonly nameOf: NameOf;
}

/** What protects the fields of a request: the plan in force, and what each is made from. */
export function protectionFor(
  db: Reader,
  register: Pick<RegisterRow, 'access' | 'fields' | 'ran'>,
  request: Pick<ShownRow, 'releaseId' | 'trial'>,
): Protection {
  const { formId, design } = releaseById(db, request.releaseId).release;
  // A trial request may have fields that the register has not got yet.
  const fields = request.trial ? design.fields : register.fields;
  return protectionOf(register.access, { fields, release: { form: formId, design }, ran: register.ran });
}

/**
 * Whether what changed can be seen by everybody who works on a request. Only then does its version
 * rise, and only then is it told: that something changed which somebody may not read would tell.
 */
export function isToldToAll(
  db: Reader,
  register: RegisterRow,
  request: Pick<ShownRow, 'releaseId' | 'trial'>,
  changes: readonly Pick<ValueChange, 'field'>[],
): boolean {
  const open = openFields(protectionFor(db, register, request));
  return changes.some((change) => open.some((field) => field.key === change.field));
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
