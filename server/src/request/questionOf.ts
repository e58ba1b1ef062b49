import type { Reader } from '../platform/database.ts';
import { historyOfRequest } from './history.ts';
import type { ShownRow } from './queries.ts';

/** What whoever asked is asked about their request: in the words of the desk, by whom, since when (Unix milliseconds). */
export interface Question {
  readonly text: string;
  /** The id of who asked; null for Tolvek itself. */
  readonly by: string | null;
  readonly at: number;
}

/**
 * What a request waits for that waits for whoever asked: the last that the desk wrote to them, where they have not written
 * since; null where it waits for nothing of theirs, or nothing was written. `happened`: its history, where that was read.
 */
export function questionOf(
  db: Reader,
  { id, phase }: Pick<ShownRow, 'id' | 'phase'>,
  happened?: ReturnType<typeof historyOfRequest>,
): Question | null {
  if (phase !== 'paused') return null;
  const said = (happened ?? historyOfRequest(db, id)).findLast(({ comment }) => comment?.visibility === 'requester');
  if (!said?.comment || (said.data?.kind === 'said' && said.data.byRequester)) return null;
  return { text: said.comment.text, by: said.actorId, at: said.at };
}
