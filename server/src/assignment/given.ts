import type { HandsOver } from '@tolvek/core/roster';
import { and, desc, eq, inArray } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { inList } from '../platform/prepared.ts';
import { history, requests, UNFINISHED } from '../request/tables.ts';

/** The requests that some people have as a roster gave them, and nobody since; by id. */
export function givenBy(db: Reader, roster: string, people: readonly string[], what: HandsOver): readonly string[] {
  if (people.length === 0) return [];
  const phases = what === 'waiting' ? (['arrived'] as const) : UNFINISHED;
  return db
    .select({ id: requests.id })
    .from(requests)
    .where(
      and(inList(requests.handlerId, [...people]), inArray(requests.phase, [...phases]), eq(requests.trial, false)),
    )
    .orderBy(requests.createdAt)
    .all()
    .flatMap(({ id }) => (lastGiver(db, id) === roster ? [id] : []));
}

/** The roster by which a request has the handler it has; undefined where somebody or another rule made them that. */
function lastGiver(db: Reader, requestId: string): string | undefined {
  const entries = db
    .select({ data: history.data })
    .from(history)
    .where(and(eq(history.requestId, requestId), eq(history.kind, 'handler')))
    .orderBy(desc(history.at), desc(history.id))
    .all();
  for (const { data } of entries) if (data?.kind === 'handler') return data.chosen?.roster;
  return undefined;
}
