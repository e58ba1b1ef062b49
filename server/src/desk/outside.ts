import type { BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused, said } from '@tolvek/words';
import { addPerson } from '../people/commands.ts';
import { type PersonRow, personByEmail } from '../people/queries.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem, wrongFields } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { openAtWork } from '../request/open.ts';
import { isOwnOf } from '../request/queries.ts';
import { openTo } from './openTo.ts';

interface OnVersion {
  readonly number: string;
  readonly version: number;
}

/**
 * Makes somebody from outside the handler of one request. Who is not on file yet becomes a contact; they are written to, and
 * see nothing else.
 *
 * @throws Problem 403 for who may not assign it, 404, 409 for a thing, 412, 422 for an address that is none, of somebody who
 *   works here, left, or asked for it.
 */
export function giveOutside(
  house: House,
  viewer: Viewer,
  { name, email, ...input }: OnVersion & BodyOf<'giveOutside'>,
): { version: number } {
  return write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { request, register } = openTo(work.tx, viewer, input.number, 'assign');
    if (register.holds === 'things') throw new Problem(409, 'thing', refused('thingHasNoTeam'));
    const found = outsiderAt(work, { name, email });
    if (isOwnOf(request, found.id))
      throw wrongFields([{ field: 'email', message: said('work:outsideAsked'), fix: said('work:outsideAnother') }]);
    const change = { kind: 'handler', from: request.handlerId, to: found.id } as const;
    return { version: changeRequest(work, request, change, input.version).version };
  });
}

/** A contact who can be asked, by their address; one who is not on file yet is. */
function outsiderAt(work: Work, { name, email }: BodyOf<'giveOutside'>): Pick<PersonRow, 'id'> {
  const address = email.trim().toLowerCase();
  const known = personByEmail(work.tx, address);
  if (!known) return addPerson(work, { kind: 'contact', name, email });
  if (known.kind === 'staff')
    throw wrongFields([{ field: 'email', message: said('work:outsideStaff'), fix: said('work:chooseFromTeam') }]);
  if (!known.active)
    throw wrongFields([{ field: 'email', message: said('work:outsideInactive'), fix: said('work:outsideAnother') }]);
  return known;
}

/**
 * Gives a request back to its team, as whoever handles it from outside; what they say stands with it, and those who hear of delays
 * are told.
 *
 * @throws Problem 404 for who does not handle it from outside, 412, 422 where nothing is said
 */
export function giveBack(house: House, viewer: Viewer, input: OnVersion & BodyOf<'giveBack'>): { version: number } {
  return write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { request, relation } = openAtWork(work.tx, viewer, input.number, 'changing');
    if (!relation.calledIn || request.handlerId !== viewer.personId) throw notFound('request');
    const text = input.reason.trim();
    if (text === '')
      throw wrongFields([{ field: 'reason', message: said('answers:noWhyBack'), fix: said('answers:sayWhyBack') }]);
    const told = changeRequest(work, request, { kind: 'said', text, to: 'desk', byRequester: false }, input.version);
    const row = changeRequest(work, told, { kind: 'handler', from: request.handlerId, to: null });
    if (row.team === null) return { version: row.version };
    return { version: changeRequest(by(work, null), row, { kind: 'nobody-handles', team: row.team }).version };
  });
}
