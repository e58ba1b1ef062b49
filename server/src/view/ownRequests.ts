import type { Viewer } from '@tolvek/core/people';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { openRequest } from '../request/open.ts';
import { SHOWN_COLUMNS } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { readOnce } from './readOnce.ts';
import { promiseOf, questionTold, standsAt } from './sheet.ts';

export function ownRequests(db: Reader, viewer: Viewer, now: number) {
  const shared = readOnce(db);
  return (
    db
      .select(SHOWN_COLUMNS)
      .from(requests)
      .where(
        and(
          sql`${requests.id} in (select id from requests where requester_id = ${viewer.personId} union select id from requests where on_behalf_id = ${viewer.personId})`,
          eq(requests.trial, false),
        ),
      )
      // Of what came at the same moment, the later one.
      .orderBy(desc(requests.createdAt), sql`requests.rowid desc`)
      .limit(100)
      .all()
      .map((request) => {
        const register = shared.registers.byId(request.registerId);
        const open = openRequest(db, request, viewer, 'following', { register, names: shared.nameOf });
        const { stage, finished, together } = standsAt(db, open);
        return {
          number: request.number,
          form: open.design.title,
          subject: open.subject,
          ...{ stage, finished },
          waits: request.phase === 'paused',
          question: questionTold(db, request),
          promise: together ? null : promiseOf(db, open, now),
        };
      })
  );
}
