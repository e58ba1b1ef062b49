import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { isRight, may, PACKAGES, RIGHTS, rightInWords, type Viewer, wordOf } from '@tolvek/core/people';
import { grantedTo, holdersOfRight, settleRights } from '../people/grants.ts';
import { groupByKey } from '../people/groups.ts';
import { groundHistoryOf } from '../people/history.ts';
import { groupNames, personById, personNamed } from '../people/queries.ts';
import { EVERYONE } from '../people/rights.ts';
import { grants } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { nameOf } from '../request/names.ts';

type Subject = AnswerOf<'rights'>['subjects'][number];

const ORDER = { everyone: 0, group: 1, person: 2 } as const;

/** All rights, to whom each is given, and who can change that. */
export function rightsView(db: Reader, viewer: Viewer): AnswerOf<'rights'> {
  const groups = groupNames(db);
  const subjects = db
    .selectDistinct({ subject: grants.subject })
    .from(grants)
    .all()
    .map(({ subject }): Subject => {
      const rights = [...grantedTo(db, subject)];
      if (subject === EVERYONE) return { subject, kind: 'everyone', name: '', rights };
      return subject.startsWith('@')
        ? { subject, kind: 'person', name: personNamed(db, subject.slice(1)), rights }
        : { subject, kind: 'group', name: groups.get(subject) ?? subject, rights };
    });
  return {
    rights: RIGHTS.map((right) => ({ right, words: rightInWords(right) })),
    packages: (['coordinator', 'administrator'] as const).map((name) => ({ name, rights: [...PACKAGES[name]] })),
    subjects: subjects.sort((a, b) => ORDER[a.kind] - ORDER[b.kind] || a.name.localeCompare(b.name)),
    mayChange: may(viewer, 'rights'),
    mayAudit: may(viewer, 'audit'),
    givers: holdersOfRight(db, 'rights').map(({ name }) => name),
    history: groundHistoryOf(db, 'everyone', EVERYONE, nameOf(db)),
  };
}

export function rightHolders(db: Reader, right: string): AnswerOf<'rightHolders'> {
  if (!isRight(right)) throw notFound('right');
  return { people: holdersOfRight(db, right).map(({ id, name }) => ({ id, name })) };
}

/** Whether rights can be given to what a word names: everyone, a group, or one of the staff. */
function isSubject(db: Reader, subject: string): boolean {
  if (subject === EVERYONE) return true;
  return subject.startsWith('@')
    ? personById(db, subject.slice(1))?.kind === 'staff' && wordOf({ person: subject.slice(1) }) === subject
    : groupByKey(db, subject) !== undefined;
}

/** Gives and takes rights. @throws Problem 403, 404 for nobody, 409 where nobody could give rights any more. */
export const changeRights = (
  house: House,
  viewer: Viewer,
  subject: string,
  { give, take }: BodyOf<'changeRights'>,
): AnswerOf<'changeRights'> =>
  write(house, (work) => {
    if (!isSubject(work.tx, subject)) throw notFound('person');
    settleRights(by(work, viewer.personId), viewer, subject, { give, take });
    return { rights: [...grantedTo(work.tx, subject)] };
  });
