import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { personNamed } from '../people/queries.ts';
import type { House } from '../platform/house.ts';
import { notFound } from '../platform/problem.ts';
import { type OpenRequest, openAtDesk, openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestByNumber } from '../request/queries.ts';

/** Of some fields those that whoever looks may change, as what they open says. */
const writableOf = ({ values }: OpenRequest, fields: readonly string[]): readonly string[] =>
  values.fields.flatMap(({ key, writable }) => (writable && fields.includes(key) ? [key] : []));

function say(house: House, { request, reading }: OpenRequest<RequestRow>, fields: readonly string[]): void {
  const { personId: person } = reading.situation.viewer;
  if (house.atWork.say(request.id, { person, fields }, house.clock.now())) house.live.atWork(request.id);
}

/** Says what of a request somebody of its desk has begun to change. @throws Problem 404 */
export function changing(house: House, viewer: Viewer, number: string, fields: readonly string[]): void {
  const open = openAtDesk(house.db, viewer, number, 'sheet');
  say(house, open, writableOf(open, fields));
}

/** The same for whoever asked. @throws Problem 404 */
export function changingOwn(house: House, viewer: Viewer, number: string, fields: readonly string[]): void {
  const request = requestByNumber(house.db, number);
  if (!request || !isOwnOf(request, viewer.personId)) throw notFound('request');
  const open = openRequest(house.db, request, viewer, 'following');
  say(house, open, writableOf(open, fields));
}

/** Who else changes a request just now, as far as whoever looks may read what they change. @throws Problem 404 */
export function changedBy(house: House, viewer: Viewer, number: string): AnswerOf<'changedBy'> {
  const { db, clock, atWork } = house;
  const open = openAtDesk(db, viewer, number, 'sheet');
  const { request } = open;
  const others = atWork.others(request.id, viewer.personId, clock.now());
  return {
    others: others.map(({ person, fields }) => ({
      name: personNamed(db, person),
      asked: isOwnOf(request, person),
      fields: open.values.fields.flatMap(({ key }) => (fields.includes(key) ? [key] : [])),
    })),
  };
}
