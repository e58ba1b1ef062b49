import { noticeIn, USUAL_NOTICES } from '@tolvek/core/telling';
import { releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { OpenRequest } from '../request/open.ts';
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
