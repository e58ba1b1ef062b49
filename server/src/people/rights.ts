import { type Difference, type Grant, grantsAt, isRight, type Viewer, wordOf } from '@tolvek/core/people';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { grants, registerGrants, registersApart } from './tables.ts';

/** The word for everyone of the staff, where a group’s key or a person’s word may stand. */
export const EVERYONE = '*';

const given = prepared((db) => db.select().from(grants).where(isListed(grants.subject, 'subjects')).prepare());
const differing = prepared((db) =>
  db.select().from(registerGrants).where(isListed(registerGrants.subject, 'subjects')).prepare(),
);
const apart = prepared((db) => db.select().from(registersApart).prepare());

/**
 * The rights that come to somebody of the staff: by themselves, by their groups, and as one of the staff; at the desk,
 * and in registers where it is otherwise.
 */
export function rightsOf(
  db: Reader,
  personId: string,
  groups: readonly string[],
): Pick<Viewer, 'rights' | 'otherwise'> {
  const subjects = listed([EVERYONE, wordOf({ person: personId }), ...groups]);
  const desk = given(db)
    .all({ subjects })
    .filter((grant): grant is Grant => isRight(grant.right));
  const rights = rightsIn(desk);
  const registers = new Map<string, { apart: boolean; differences: Difference[] }>(
    apart(db)
      .all()
      .map(({ registerId }) => [registerId, { apart: true, differences: [] }]),
  );
  for (const { registerId, subject, right, given } of differing(db).all({ subjects })) {
    if (!isRight(right)) continue;
    const found = registers.get(registerId) ?? { apart: false, differences: [] };
    registers.set(registerId, found);
    found.differences.push({ subject, right, given });
  }
  if (registers.size === 0) return { rights };
  const otherwise = Object.fromEntries([...registers].map(([id, there]) => [id, rightsIn(grantsAt(desk, there))]));
  return { rights, otherwise };
}

const rightsIn = (grants: readonly Grant[]): Viewer['rights'] => [...new Set(grants.map(({ right }) => right))];
