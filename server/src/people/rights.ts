import { isRight, type Right, wordOf } from '@tolvek/core/people';
import type { Reader } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { grants } from './tables.ts';

/** The word for everyone of the staff, where a group’s key or a person’s word may stand. */
export const EVERYONE = '*';

const given = prepared((db) =>
  db.selectDistinct({ right: grants.right }).from(grants).where(isListed(grants.subject, 'subjects')).prepare(),
);

/** The rights that come to somebody of the staff: by themselves, by their groups, and as one of the staff. */
export const rightsOf = (db: Reader, personId: string, groups: readonly string[]): readonly Right[] =>
  given(db)
    .all({ subjects: listed([EVERYONE, wordOf({ person: personId }), ...groups]) })
    .flatMap(({ right }) => (isRight(right) ? [right] : []));
