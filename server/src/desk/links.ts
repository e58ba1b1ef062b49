import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { personById, personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { isWorking, type Link, linksTo, spendLink } from '../platform/links.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { proofWanted } from '../request/followed.ts';
import { historyOfRequest } from '../request/history.ts';
import { isOwnOf, type RequestRow, requestByNumber } from '../request/queries.ts';
import { openTo } from './openTo.ts';

/** The links to a request that work: all of them, or those of one person. */
const working = (db: Reader, requestId: string, now: number, of?: string): readonly Link[] =>
  linksTo(db, requestId, 'follow').filter((link) => isWorking(link, now) && (of === undefined || link.personId === of));

/** The links by which people follow a request without signing in, the one that works longest first. */
export function linksView(db: Reader, request: RequestRow, now: number): AnswerOf<'sheet'>['links'] {
  const needsCode = proofWanted(db, request) !== undefined;
  return linksTo(db, request.id, 'follow').map((link) => ({
    needsCode,
    ...{ id: link.id, person: personNamed(db, link.personId), until: iso(link.expiresAt) },
    made: link.createdAt === null ? null : iso(link.createdAt),
    state: link.usedAt !== null ? 'ended' : isWorking(link, now) ? 'works' : 'expired',
  }));
}

/** The links to a request of theirs that work, and until when the last of them does. `came`: the one they came by. */
export function ownLinks(
  db: Reader,
  request: RequestRow,
  { personId, kind }: Viewer,
  now: number,
  came: string | null,
): AnswerOf<'follow'>['links'] {
  const own = working(db, request.id, now, personId);
  const last = own[0];
  return {
    working: own.length,
    until: last ? iso(last.expiresAt) : null,
    needsCode: proofWanted(db, request) !== undefined,
    each: own.map(({ id, createdAt, expiresAt }) => ({
      ...{ id, made: createdAt === null ? null : iso(createdAt), until: iso(expiresAt), here: id === came },
    })),
    mayRenew: kind === 'contact',
  };
}

/** Ends links to a request: they open nothing any more. What they were used for stays. */
function end(work: Work, request: RequestRow, links: readonly Link[]): void {
  for (const link of links) spendLink(work.tx, link, work.now);
  for (const of of new Set(links.map(({ personId }) => personId)))
    changeRequest(work, request, { kind: 'links-ended', of });
}

/** Ends the links of somebody, and has another one sent to their address. */
function sendAnew(work: Work, request: RequestRow, of: string): void {
  for (const link of working(work.tx, request.id, work.now, of)) spendLink(work.tx, link, work.now);
  changeRequest(work, request, { kind: 'link-sent', of });
}

/** Ends some links to a request, or all that work. `only`: their ids. */
export function endLinks(
  house: House,
  viewer: Viewer,
  number: string,
  only: readonly string[] | null,
): AnswerOf<'endLinks'> {
  return write(house, (work) => {
    const { request } = openTo(work.tx, viewer, number, 'change');
    const meant = working(work.tx, request.id, work.now).filter(({ id }) => only?.includes(id) ?? true);
    end(by(work, viewer.personId), request, meant);
    return { ended: meant.length };
  });
}

/**
 * Sends whoever asked from outside a new link to their request; those they had end.
 *
 * @throws Problem 409 where nobody follows it by a link
 */
export function sendLink(house: House, viewer: Viewer, number: string): AnswerOf<'sendLink'> {
  return write(house, (work) => {
    const { request } = openTo(work.tx, viewer, number, 'change');
    const person = request.requesterId === null ? undefined : personById(work.tx, request.requesterId);
    if (person?.kind !== 'contact') throw new Problem(409, 'no-link', refused('noLink'));
    sendAnew(by(work, viewer.personId), request, person.id);
    return { done: true };
  });
}

/** One’s own request. @throws Problem 404 for that of somebody else */
function ownRequest(db: Reader, viewer: Viewer, number: string): RequestRow {
  const request = requestByNumber(db, number.toUpperCase());
  if (!request || !isOwnOf(request, viewer.personId)) throw notFound('request');
  return request;
}

/** So many times in an hour somebody has a new link sent to themselves. */
const RENEWED = 5;
const HOUR = 60 * 60_000;

/**
 * Sends somebody from outside a new link to their own request; those they had end, also the one they came by.
 *
 * @throws Problem 409 for staff, who sign in; 429 for who had as many sent within the hour
 */
export function renewLink(house: House, viewer: Viewer, number: string): AnswerOf<'renewMyLink'> {
  return write(house, (work) => {
    const request = ownRequest(work.tx, viewer, number);
    if (viewer.kind !== 'contact') throw new Problem(409, 'no-link', refused('noLink'));
    const lately = historyOfRequest(work.tx, request.id).filter(
      ({ data, actorId, at }) => data?.kind === 'link-sent' && actorId === viewer.personId && at > work.now - HOUR,
    );
    if (lately.length >= RENEWED) throw new Problem(429, 'too-many-letters', refused('tooManyLinks'), undefined, 3_600);
    sendAnew(by(work, viewer.personId), request, viewer.personId);
    return { done: true };
  });
}

/** Ends the links to one’s own request: some of them, else all but the one they came by. */
export function endOwnLinks(
  house: House,
  viewer: Viewer,
  number: string,
  { only, but = null }: { readonly only: readonly string[] | null; readonly but?: string | null },
): AnswerOf<'endMyLinks'> {
  return write(house, (work) => {
    const request = ownRequest(work.tx, viewer, number);
    const own = working(work.tx, request.id, work.now, viewer.personId).filter(({ id }) =>
      only ? only.includes(id) : id !== but,
    );
    end(by(work, viewer.personId), request, own);
    return { ended: own.length };
  });
}
