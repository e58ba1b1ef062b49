import { may, type Viewer } from '@tolvek/core/people';
import { fieldsNamedBy, noticeIn, USUAL_NOTICES } from '@tolvek/core/telling';
import { releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { requestById } from '../request/queries.ts';
import { fieldsRead } from './ready.ts';

/**
 * Whether somebody may know of an email about a request that they have before them, by the key of the notice it came from:
 * that one goes at all tells that its condition held, or whom a field names.
 */
export function knowsOf(db: Reader, { request, readable }: OpenRequest): (rule: string | null) => boolean {
  const { notices = USUAL_NOTICES, fields = [] } = releaseInForce(db, request.formId)?.design ?? {};
  return (key) => {
    if (key === null) return true;
    const rule = noticeIn(notices, key);
    if (!rule) return false;
    return [...fieldsRead(rule, fields), ...fieldsNamedBy(rule)].every((field) => readable.has(field));
  };
}

/** A request that somebody may see the history of, and which of its emails they may know of. */
export interface KnownRequest {
  readonly open: OpenRequest;
  readonly knows: ReturnType<typeof knowsOf>;
}

/** A request by its id, where somebody may see its history; null where they may not, or it is gone. */
export function historyOf(db: Reader, viewer: Viewer, requestId: string): KnownRequest | null {
  const request = requestById(db, requestId);
  const open = request && openRequest(db, request, viewer, 'list');
  return open?.relation.isDesk && open.may('history') ? { open, knows: knowsOf(db, open) } : null;
}

/** Whether somebody may know of an email: of one about a request, whoever may see its history; of others, who sees to people. */
export function knowsOfEmail(
  db: Reader,
  viewer: Viewer,
  { requestId, rule }: { readonly requestId: string | null; readonly rule: string | null },
): boolean {
  if (requestId === null) return may(viewer, 'people');
  return historyOf(db, viewer, requestId)?.knows(rule) ?? false;
}
