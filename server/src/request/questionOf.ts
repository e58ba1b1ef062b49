import { and, desc, eq, isNotNull } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { history, type requests } from './tables.ts';

/** What whoever asked is asked about their request: in the words of the desk, by whom, since when (Unix milliseconds). */
export interface Question {
  readonly text: string;
  /** The id of who asked; null for Tolvek itself. */
  readonly by: string | null;
  readonly at: number;
}

/**
 * What a request waits for that waits for whoever asked: the last that the desk wrote to them, where they have not written
 * since; null where it waits for nothing of theirs, or nothing was written.
 */
export function questionOf(
  db: Reader,
  { id, phase }: Pick<typeof requests.$inferSelect, 'id' | 'phase'>,
): Question | null {
  if (phase !== 'paused') return null;
  const said = db
    .select({ comment: history.comment, data: history.data, by: history.actorId, at: history.at })
    .from(history)
    .where(and(eq(history.requestId, id), isNotNull(history.comment)))
    .orderBy(desc(history.at), desc(history.id))
    .all()
    .find(({ comment }) => comment?.visibility === 'requester');
  if (!said?.comment || (said.data?.kind === 'said' && said.data.byRequester)) return null;
  return { text: said.comment.text, by: said.by, at: said.at };
}
