import { may, type Viewer } from '@tolvek/core/people';
import { noticeIn, USUAL_NOTICES } from '@tolvek/core/telling';
import { releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { requestById } from '../request/queries.ts';
import { fieldsRead } from './rules.ts';

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
    const named = rule.to.flatMap((to) => (typeof to === 'object' && 'field' in to ? [to.field] : []));
    return [...fieldsRead(rule, fields), ...named].every((field) => readable.has(field));
  };
}

/** Whether somebody may know of an email: of one about a request, whoever may see its history; of others, who sees to people. */
export function knowsOfEmail(
  db: Reader,
  viewer: Viewer,
  { requestId, rule }: { readonly requestId: string | null; readonly rule: string | null },
  opened: Map<string, OpenRequest | null> = new Map(),
): OpenRequest | boolean {
  if (requestId === null) return may(viewer, 'people');
  let open = opened.get(requestId);
  if (open === undefined) {
    const request = requestById(db, requestId);
    open = request ? openRequest(db, request, viewer, 'list') : null;
    opened.set(requestId, open);
  }
  return open?.relation.isDesk && open.may('history') && knowsOf(db, open)(rule) ? open : false;
}
