import { doorIn } from '@tolvek/core/door';
import type { Words } from '@tolvek/words';
import type { DoorRow } from '../door/queries.ts';
import { personById, viewerIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { openRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';

/**
 * The words of a door once a request came in, with what whoever asked may read of it; null where it has none. What
 * stores nobody repeats no answers: its words name none.
 */
export function confirmationOf(db: Reader, { design }: DoorRow, request: RequestRow): Words | null {
  const text = design.confirmation?.trim();
  if (!text) return null;
  const asked = request.requesterId === null ? undefined : personById(db, request.requesterId);
  if (!asked) return text;
  const open = openRequest(db, request, viewerIn(db, asked), 'following');
  return open.textsOf([doorIn(design, open.spoken).confirmation ?? text])[0] ?? null;
}
