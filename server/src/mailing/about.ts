import type { Viewer } from '@tolvek/core/people';
import type { Words } from '@tolvek/words';
import { releaseInForce } from '../form/queries.ts';
import { personNamed } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { openRequest } from '../request/open.ts';
import { isOwnOf, requestById } from '../request/queries.ts';
import { requestsNamed } from '../request/references.ts';
import { mailingById, type OwedRow } from './queries.ts';

/**
 * What an owed form is about, as far as whoever reads it may know: of a request what it is called, where it is theirs or
 * they work on it; else what its form shows of it to everybody whom it is sent to.
 */
export function aboutOwed(
  db: Reader,
  {
    mailingId,
    field: key,
    aboutPersonId,
    aboutRequestId,
  }: Pick<OwedRow, 'mailingId' | 'field' | 'aboutPersonId' | 'aboutRequestId'>,
  viewer: Viewer,
): Words | null {
  if (aboutPersonId !== null) return personNamed(db, aboutPersonId);
  const request = aboutRequestId === null ? undefined : requestById(db, aboutRequestId);
  if (!request) return null;
  const open = openRequest(db, request, viewer, 'letter');
  if (open.relation.isDesk || isOwnOf(request, viewer.personId)) return open.subject;
  const formId = mailingById(db, mailingId)?.formId;
  const field = formId && releaseInForce(db, formId)?.design.fields.find((each) => each.key === key);
  const known = field ? requestsNamed(db, [field], { [field.key]: request.id }) : [];
  return known[0]?.label ?? request.number;
}
