import type { RequestRight, Viewer } from '@tolvek/core/people';
import { rightMissing } from '../people/grants.ts';
import type { Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import { type OpenRequest, openAtWork } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';

/**
 * Opens a request for somebody who works on it and may do something with it.
 *
 * @throws Problem 403 for who lacks the right, 404 for who does not work on it.
 */
export function openTo(db: Reader, viewer: Viewer, number: string, right: RequestRight): OpenRequest<RequestRow> {
  const open = openAtWork(db, viewer, number, 'changing');
  if (!open.may(right)) throw open.relation.isDesk ? rightMissing(db, `${right}:team`) : notFound('request');
  return open;
}
