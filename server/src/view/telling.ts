import { type FormSink, sinksOf } from '@tolvek/core/form';
import { LRUCache } from 'lru-cache';
import { planningOf, releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { ShownRow } from '../request/queries.ts';

const telling = new LRUCache<string, readonly FormSink[]>({ max: 1_000 });

/** All that a deadline of a request and the row it went by are made from. */
export function tellingOf(db: Reader, request: ShownRow, deadline: string): readonly FormSink[] {
  const planned = request.plannedBy ?? request.releaseId;
  const key = `${request.releaseId} ${planned} ${deadline}`;
  let found = telling.get(key);
  if (!found) {
    const { fields, routing } = releaseById(db, request.releaseId).release.design;
    const plan = planningOf(db, request).release.design.deadline;
    found = sinksOf({ fields, routing, deadline: plan }).filter(
      ({ kind, at }) => kind === 'routing' || (kind === 'deadline' && at === deadline),
    );
    telling.set(key, found);
  }
  return found;
}
