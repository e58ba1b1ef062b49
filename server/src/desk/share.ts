import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { calledApart, toldApart, type Viewer, wordOf } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { rightMissing } from '../people/grants.ts';
import { groupByKey } from '../people/groups.ts';
import { listPeople } from '../people/lists.ts';
import { allGroups, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { pictureVersions } from '../platform/pictures.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { type OpenRequest, openAtDesk } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';
import { endShare, putShare } from '../request/shares.ts';

/** @throws Problem 403 for who lacks the right, 404 for who does not read it. */
function openToShare({ tx }: Pick<Work, 'tx'>, viewer: Viewer, number: string): OpenRequest<RequestRow> {
  const open = openAtDesk(tx, viewer, number, 'changing');
  if (!open.may('share')) throw rightMissing(tx, 'share:team');
  return open;
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
    const { request } = openToShare(work, viewer, number);
    const isThere =
      'group' in whom
        ? groupByKey(tx, whom.group)?.retired === false
        : personById(tx, whom.person)?.kind === 'staff' && personById(tx, whom.person)?.active === true;
    if (!isThere) throw wrongFields([{ field: 'with', message: said('share:nobody'), fix: said('share:choose') }]);
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
    const { request } = openToShare(work, viewer, number);
    if (!endShare(work.tx, request.id, holder)) throw notFound('person');
    changeRequest(work, request, { kind: 'unshared', with: holder });
  });
  return { done: true };
}

/** Names that are offered at once. */
const OFFERED = 8;

/** Groups and staff with whom a request can be shared, by part of their names. @throws Problem 403, 404 */
export function shareTargets(db: Reader, viewer: Viewer, number: string, find: string): AnswerOf<'shareTargets'> {
  const open = openAtDesk(db, viewer, number, 'list');
  if (!open.may('share')) throw rightMissing(db, 'share:team');
  const { people } = listPeople(db, { kind: 'staff', state: 'active', find }, null);
  const offered = people.slice(0, OFFERED);
  const portraits = pictureVersions(
    db,
    offered.map(({ id }) => id),
  );
  const text = find.trim().toLocaleLowerCase();
  return {
    groups: allGroups(db)
      .filter(({ name, retired }) => !retired && name.toLocaleLowerCase().includes(text))
      .slice(0, OFFERED)
      .map(({ key, name, members }) => ({ key, name, members })),
    people: toldApart(offered).map(({ id, ...person }) => ({
      ...{ id, name: calledApart(person), portrait: portraits.get(id) ?? null },
    })),
  };
}
