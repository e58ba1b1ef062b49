import type { AnswerOf } from '@tolvek/contract';
import { relationTo, reveal, revealSubject } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import type { KnownRequest } from '@tolvek/core/register';
import { eq } from 'drizzle-orm';
import { releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { registerById } from '../register/queries.ts';
import { openFor } from '../request/open.ts';
import { partiesIn } from '../request/queries.ts';
import { requestsPointingTo } from '../request/references.ts';
import { requests } from '../request/tables.ts';

/** Which of some requests the viewer works on, and may open. */
export function openTo(db: Reader, viewer: Viewer, known: readonly KnownRequest[]): readonly string[] {
  return known.flatMap(({ id, number }) => {
    const request = db.select().from(requests).where(eq(requests.id, id)).get();
    return request && relationTo(partiesIn(request, registerById(db, request.registerId)), viewer).isDesk
      ? [number]
      : [];
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
      const { relation, access } = openFor(db, request, viewer);
      if (!relation.isDesk) return [];
      const visible = reveal({ ...access, values: request.values });
      const field = visible.fields.find((each) => each.key === key);
      if (!field) return [];
      const { design } = releaseById(db, request.releaseId).release;
      return [
        { number: request.number, subject: revealSubject(design.subject, visible, design.title), field: field.label },
      ];
    })
    .slice(0, POINTING_SHOWN);
}
