import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { Reader } from '../platform/database.ts';
import { mergedAs, mergedInto } from '../request/merged.ts';
import { openRequest } from '../request/open.ts';
import { type RequestRow, requestById } from '../request/queries.ts';

/** What a sheet tells of a merge, for whoever reads it. */
export function mergesTold(db: Reader, viewer: Viewer, { id }: Pick<RequestRow, 'id'>): AnswerOf<'sheet'>['merged'] {
  const readable = (requestId: string) => {
    const request = requestById(db, requestId);
    const open = request && openRequest(db, request, viewer, 'list');
    return open?.relation.isDesk ? [{ number: open.request.number, subject: open.subject }] : [];
  };
  const merged = mergedAs(db, id);
  return {
    into: (merged && readable(merged.intoId)[0]) ?? null,
    took: mergedInto(db, id).flatMap(({ requestId }) => readable(requestId)),
  };
}
