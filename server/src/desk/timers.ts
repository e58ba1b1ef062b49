import { and, eq } from 'drizzle-orm';
import { timers } from '../deadline/tables.ts';
import { next } from '../deadline/timers.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { inTurns } from '../platform/turns.ts';
import { write } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import { requestById } from '../request/queries.ts';

/**
 * Lets everything happen that is due by now, in its order, each in its own transaction and some of
 * them each turn. Returns how many did.
 */
export async function runDueTimers(house: House): Promise<number> {
  let happened = 0;
  for await (const due of inTurns(dueNow(house)))
    happened += await patiently(house, () =>
      write(house, (work) => {
        const { tx } = work;
        const claimed = tx
          .update(timers)
          .set({ state: 'done' })
          .where(and(eq(timers.id, due.id), eq(timers.state, 'waiting')))
          .run();
        const request = requestById(tx, due.requestId);
        if (claimed.changes === 0 || !request || request.phase === 'finished') return claimed.changes;
        changeRequest(work, request, { kind: 'rang', timer: due.kind });
        return 1;
      }),
    );
  return happened;
}

/** What is due, one after the other; each is looked for when the one before has happened. */
function* dueNow({ db, clock }: House): Generator<typeof timers.$inferSelect> {
  for (;;) {
    const due = next(db).get();
    if (!due || due.at > clock.now()) return;
    yield due;
  }
}
