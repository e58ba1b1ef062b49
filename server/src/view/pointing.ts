import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import type { KnownRequest } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { openRequest } from '../request/open.ts';
import { requestsPointingTo } from '../request/references.ts';
import { requests } from '../request/tables.ts';

/** Which of some requests the viewer works on, and may open. */
export function openTo(db: Reader, viewer: Viewer, known: readonly KnownRequest[]): readonly string[] {
  return known.flatMap(({ id, number }) => {
    const request = db.select().from(requests).where(eq(requests.id, id)).get();
    return request && openRequest(db, request, viewer, 'list').relation.isDesk ? [number] : [];
  });
}

/** Back-links shown on a sheet at most. */
const POINTING_SHOWN = 30;

/** What points to a request, as far as the viewer works on it too. */
export function pointingAt(db: Reader, viewer: Viewer, targetId: string): AnswerOf<'sheet'>['pointing'] {
  return requestsPointingTo(db, targetId)
    .slice(0, 200)
    .flatMap(({ requestId, field: key }) => {
      const request = db.select().from(requests).where(eq(requests.id, requestId)).get();
      if (!request) return [];
      const open = openRequest(db, request, viewer, 'list');
      const field = open.fields.find((each) => each.key === key);
      if (!open.relation.isDesk || !field || !open.readable.has(key)) return [];
      return [{ number: request.number, subject: open.subject, field: field.label }];
    })
    .slice(0, POINTING_SHOWN);
}
