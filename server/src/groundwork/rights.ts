import type { AnswerOf, BodyOf } from '@tolvek/contract';
import {
  isRight,
  may,
  PACKAGES,
  REGISTER_RIGHTS,
  RIGHTS,
  type Right,
  rightInWords,
  type Viewer,
  wordOf,
} from '@tolvek/core/people';
import { said } from '@tolvek/words';
import {
  countHolders,
  differingRegisters,
  givenTo,
  grantedTo,
  grantsIn,
  holdersOfRight,
  registerRightsOf,
} from '../people/given.ts';
import { putBackRights, setApart, settleRights } from '../people/grants.ts';
import { groupByKey } from '../people/groups.ts';
import { groundHistoryOf, registerRightsHistory } from '../people/history.ts';
import { groupNames, personById, personNamed } from '../people/queries.ts';
import { EVERYONE } from '../people/rights.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { allRegisters, registerNamed } from '../register/queries.ts';
import { nameOf } from '../request/names.ts';
import { effectsOf } from './effects.ts';

type Subject = AnswerOf<'rights'>['subjects'][number];

const ORDER = { everyone: 0, group: 1, person: 2 } as const;

/** What rights are given to, in the order in which they are shown: everyone, groups, people. */
function subjectsNamed(db: Reader, words: Iterable<string>): readonly Omit<Subject, 'rights'>[] {
  const groups = groupNames(db);
  const named = [...new Set(words)].map((subject): Omit<Subject, 'rights'> => {
    if (subject === EVERYONE) return { subject, kind: 'everyone', name: '' };
    return subject.startsWith('@')
      ? { subject, kind: 'person', name: personNamed(db, subject.slice(1)) }
      : { subject, kind: 'group', name: groups.get(subject) ?? subject };
  });
  return named.sort((a, b) => ORDER[a.kind] - ORDER[b.kind] || a.name.localeCompare(b.name));
}

const counted = (db: Reader, rights: readonly Right[], register: string | null) =>
  rights.map((right) => ({ right, words: rightInWords(right), holders: countHolders(db, right, register) }));

/** What whoever asks may do with rights, and who can give them. */
const asked = (db: Reader, viewer: Viewer) => ({
  mayChange: may(viewer, 'rights'),
  givers: holdersOfRight(db, 'rights').map(({ name }) => name),
});

/** All rights there are, to whom each is given, and who can change that. */
export function rightsView(db: Reader, viewer: Viewer): AnswerOf<'rights'> {
  const grants = grantsIn(db, null);
  const differing = differingRegisters(db);
  return {
    rights: counted(db, RIGHTS, null),
    packages: (['coordinator', 'administrator'] as const).map((name) => ({ name, rights: [...PACKAGES[name]] })),
    subjects: subjectsNamed(
      db,
      grants.map(({ subject }) => subject),
    ).map((named) => ({ ...named, rights: givenTo(grants, named.subject) })),
    registers: allRegisters(db).map(({ id, key, name }) => {
      const there = differing.get(id);
      return { key, name, apart: there?.apart ?? false, differences: there?.differences.length ?? 0 };
    }),
    mayAudit: may(viewer, 'audit'),
    ...asked(db, viewer),
    history: groundHistoryOf(db, 'everyone', EVERYONE, nameOf(db)),
  };
}

/** To whom rights are given in one register, beside what the desk gives. @throws Problem 404 */
export function registerRightsView(db: Reader, viewer: Viewer, key: string): AnswerOf<'registerRights'> {
  const { id, name } = registerNamed(db, key);
  const [desk, here] = [grantsIn(db, null), grantsIn(db, id)];
  const ofRegister = (rights: Right[]): Right[] => rights.filter((right) => REGISTER_RIGHTS.includes(right));
  const subjects = [...desk, ...here].flatMap(({ subject, right }) =>
    REGISTER_RIGHTS.includes(right) ? [subject] : [],
  );
  return {
    ...{ key, name, apart: registerRightsOf(db, id).apart },
    rights: counted(db, REGISTER_RIGHTS, id),
    subjects: subjectsNamed(db, subjects).map((named) => ({
      ...named,
      rights: ofRegister(givenTo(here, named.subject)),
      desk: ofRegister(givenTo(desk, named.subject)),
    })),
    ...asked(db, viewer),
    history: registerRightsHistory(db, id, nameOf(db)),
  };
}

/** The id of a register that is named; null where none is. @throws Problem 404 */
const registerAsked = (db: Reader, key: string | undefined): string | null =>
  key === undefined ? null : registerNamed(db, key).id;

export function rightHolders(db: Reader, right: string, register: string | undefined): AnswerOf<'rightHolders'> {
  if (!isRight(right)) throw notFound('right');
  return { people: holdersOfRight(db, right, registerAsked(db, register)).map(({ id, name }) => ({ id, name })) };
}

type Becomes = BodyOf<'setRegisterRights'>['to'];

const become = (work: Work, viewer: Viewer, register: string, to: Becomes): void =>
  to === 'desk' ? putBackRights(work, viewer, register) : setApart(work, viewer, register, to === 'apart');

/** Who would get or lose which right in a register. Keeps nothing. @throws Problem 404 */
export function registerRightsPlan(
  house: House,
  viewer: Viewer,
  key: string,
  to: Becomes,
): AnswerOf<'registerRightsPlan'> {
  const { id } = registerNamed(house.db, key);
  return { effects: [...effectsOf(house, (work) => become(by(work, viewer.personId), viewer, id, to), id)] };
}

/** Lets a register stand apart from the desk, beside it, or puts it back. @throws Problem 403, 404 */
export function setRegisterRights(
  house: House,
  viewer: Viewer,
  key: string,
  to: Becomes,
): AnswerOf<'setRegisterRights'> {
  write(house, (work) => become(by(work, viewer.personId), viewer, registerNamed(work.tx, key).id, to));
  return { done: true };
}

/** Whether rights can be given to what a word names: everyone, a group, or one of the staff. */
function isSubject(db: Reader, subject: string): boolean {
  if (subject === EVERYONE) return true;
  return subject.startsWith('@')
    ? personById(db, subject.slice(1))?.kind === 'staff' && wordOf({ person: subject.slice(1) }) === subject
    : groupByKey(db, subject) !== undefined;
}

/**
 * Gives and takes rights, at the desk or in a register.
 *
 * @throws Problem 403, 404 for nobody and no register, 409 where nobody could give rights any more, 422 for a right
 *   that no register gives.
 */
export const changeRights = (
  house: House,
  viewer: Viewer,
  subject: string,
  { give, take, register }: BodyOf<'changeRights'>,
): AnswerOf<'changeRights'> =>
  write(house, (work) => {
    if (!isSubject(work.tx, subject)) throw notFound('person');
    const where = registerAsked(work.tx, register);
    if (where !== null && [...give, ...take].some((right) => !REGISTER_RIGHTS.includes(right)))
      throw wrongFields([{ field: 'give', message: said('ground:notOfRegister'), fix: said('ground:giveAtDesk') }]);
    settleRights(by(work, viewer.personId), viewer, subject, { give, take }, where);
    return { rights: [...grantedTo(work.tx, subject, where)] };
  });
