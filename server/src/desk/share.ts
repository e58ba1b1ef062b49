import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { calledApart, type Holder, toldApart, type Viewer, wordOf } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { groupByKey } from '../people/groups.ts';
import { staffFound } from '../people/lists.ts';
import { allGroups, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { endShare, putShare } from '../request/shares.ts';
import { openTo } from './openTo.ts';

/** Whether a request can be shared with somebody: one of the staff who is active, or a group in use. */
function isThere(db: Reader, whom: Holder): boolean {
  if ('group' in whom) return groupByKey(db, whom.group)?.retired === false;
  const person = personById(db, whom.person);
  return person?.kind === 'staff' && person.active;
}

/**
 * Lets one of the staff or a group read a request besides those who work on it. Nobody is written to.
 *
 * @throws Problem 403 for who lacks the right, 404, 422 for nobody who could read it, and for a day that is over.
 */
export function share(
  house: House,
  viewer: Viewer,
  number: string,
  { with: whom, until }: BodyOf<'shareRequest'>,
): AnswerOf<'shareRequest'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx, now } = work;
    const { request } = openTo(tx, viewer, number, 'share');
    if (!isThere(tx, whom))
      throw wrongFields([{ field: 'with', message: said('share:nobody'), fix: said('share:choose') }]);
    if (until !== null && until < todayAt(tx, now))
      throw wrongFields([{ field: 'until', message: said('share:over'), fix: said('share:laterDay') }]);
    const holder = wordOf(whom);
    putShare(tx, { requestId: request.id, holder, untilDay: until, by: viewer.personId, at: now });
    changeRequest(work, request, { kind: 'shared', with: holder, until });
  });
  return { done: true };
}

/** Ends what somebody could read of a request. @throws Problem 403, 404 */
export function unshare(house: House, viewer: Viewer, number: string, holder: string): AnswerOf<'unshareRequest'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { request } = openTo(work.tx, viewer, number, 'share');
    if (!endShare(work.tx, request.id, holder)) throw notFound('person');
    changeRequest(work, request, { kind: 'unshared', with: holder });
  });
  return { done: true };
}

/** Names that are offered at once. */
const OFFERED = 8;

/** Groups and staff with whom a request can be shared, by part of their names. @throws Problem 403, 404 */
export function shareTargets(db: Reader, viewer: Viewer, number: string, find: string): AnswerOf<'shareTargets'> {
  openTo(db, viewer, number, 'share');
  return targetsFound(db, find);
}

/** Groups and staff by part of their names. */
export function targetsFound(db: Reader, find: string): AnswerOf<'shareTargets'> {
  const text = find.trim().toLocaleLowerCase();
  return {
    groups: allGroups(db)
      .filter(({ name, retired }) => !retired && name.toLocaleLowerCase().includes(text))
      .slice(0, OFFERED)
      .map(({ key, name, members }) => ({ key, name, members })),
    people: toldApart(staffFound(db, find, OFFERED)).map(({ id, portrait, ...person }) => ({
      ...{ id, name: calledApart(person), portrait },
    })),
  };
}
