import { lengthInWords, momentInWords, workingTimeBetween } from '@tolvek/core/deadline';
import { and, eq } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { timers } from '../deadline/tables.ts';
import { next } from '../deadline/timers.ts';
import { releaseById } from '../form/queries.ts';
import { notify } from '../notice/notify.ts';
import { membersOf, personById } from '../people/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { storing } from '../platform/patience.ts';
import { inTurns } from '../platform/turns.ts';
import { write } from '../platform/work.ts';
import { remember } from '../request/history.ts';
import { type RequestRow, requestById } from '../request/queries.ts';

/**
 * Lets everything happen that is due by now, in its order, each in its own transaction and some of
 * them each turn. Returns how many did.
 */
export async function runDueTimers(house: House): Promise<number> {
  let happened = 0;
  for await (const due of inTurns(dueNow(house)))
    happened += await storing(house, () =>
      write(house, ({ tx, effects, now }) => {
        const claimed = tx
          .update(timers)
          .set({ state: 'done' })
          .where(and(eq(timers.id, due.id), eq(timers.state, 'waiting')))
          .run();
        const request = requestById(tx, due.requestId);
        if (claimed.changes === 0 || !request || request.phase === 'finished') return claimed.changes;
        effects.changed.add(request.id);
        tellOf(house, tx, now, due.kind, request);
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

function tellOf(
  house: House,
  tx: Transaction,
  now: number,
  kind: 'reminder' | 'escalation',
  request: RequestRow,
): void {
  const { release } = releaseById(tx, request.releaseId);
  const plan = release.design.deadline;
  const calendar = calendarOf(tx, plan.calendar);
  const due = momentInWords(request.due, calendar.zone);
  const handler = request.handlerId ? personById(tx, request.handlerId) : undefined;
  const working = handler ? [handler.id] : membersOf(tx, request.team).map((person) => person.id);
  if (kind === 'reminder') {
    const left = lengthInWords(Math.max(0, workingTimeBetween(calendar, now, request.due)), calendar);
    notify(house, tx, now, request, working, { kind, left, due });
  } else {
    const leads = membersOf(tx, plan.escalateTo).map((person) => person.id);
    notify(house, tx, now, request, [...leads, ...working], { kind, due, handler: handler?.name ?? '' });
  }
  remember(tx, now, {
    requestId: request.id,
    actorId: null,
    kind,
    words: kind === 'reminder' ? 'A reminder went out before the deadline' : 'The deadline passed; the lead was told',
  });
}
