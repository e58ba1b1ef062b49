import { and, eq, sql } from 'drizzle-orm';
import { nextRinging } from '../approval/limits.ts';
import { timers } from '../deadline/tables.ts';
import { next } from '../deadline/timers.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { prepared } from '../platform/prepared.ts';
import { A_COMMIT, aTurn } from '../platform/turns.ts';
import { type Work, write } from '../platform/work.ts';
import { requestById } from '../request/queries.ts';
import { ringOf } from './ringing.ts';
import { ringFor } from './silence.ts';

/** What is due: a timer of a deadline, or a step of a decision. */
type Due =
  | { readonly of: 'deadline'; readonly timer: typeof timers.$inferSelect }
  | { readonly of: 'decision'; readonly step: string; readonly request: string };

/**
 * Lets everything happen that is due by now, in its order: a few of them stored together, so that all that piled up while
 * the desk stood still is soon over, with turns for others between them. Returns how many did.
 */
export async function runDueTimers(house: House): Promise<number> {
  let happened = 0;
  while (!dueNow(house).next().done) {
    happened += await patiently(house, () => write(house, someDue));
    await aTurn('long work');
  }
  return happened;
}

/** Lets as much of what is due happen as is stored within a commit. */
function someDue(work: Work): number {
  const began = performance.now();
  let rang = 0;
  for (const due of dueNow(work.house)) {
    rang += ring(work, due);
    if (performance.now() - began >= A_COMMIT) break;
  }
  return rang;
}

const claiming = prepared((db) =>
  db
    .update(timers)
    .set({ state: 'done' })
    .where(and(eq(timers.id, sql.placeholder('id')), eq(timers.state, 'waiting')))
    .prepare(),
);

function ring(work: Work, due: Due): number {
  const { tx } = work;
  if (due.of === 'decision') {
    const request = requestById(tx, due.request);
    if (request) ringFor(work, request, due.step);
    return 1;
  }
  const { id, requestId } = due.timer;
  const claimed = claiming(tx).run({ id });
  const request = requestById(tx, requestId);
  if (claimed.changes === 0 || !request || request.phase === 'finished') return claimed.changes;
  ringOf(work, request, due.timer);
  return 1;
}

/** What is due, one after the other; each is looked for when the one before has happened. */
function* dueNow({ db, clock }: House): Generator<Due> {
  for (;;) {
    const timer = next(db).get();
    const asked = nextRinging(db);
    const at = timer?.at ?? Number.POSITIVE_INFINITY;
    const ringAt = asked?.ringAt ?? Number.POSITIVE_INFINITY;
    if (Math.min(at, ringAt) > clock.now()) return;
    if (timer && at <= ringAt) yield { of: 'deadline', timer };
    else if (asked) yield { of: 'decision', step: asked.id, request: asked.requestId };
  }
}
