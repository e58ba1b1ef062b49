import { type Deadline, type DeadlineRule, timersFor, type WorkingCalendar } from '@tolvek/core/deadline';
import { and, asc, eq, gte, lte, max, sql } from 'drizzle-orm';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { prepared } from '../platform/prepared.ts';
import type { DeadlineRow } from './queries.ts';
import { timers } from './tables.ts';

const addTimer = adding(timers);

/** With the request, by which they are found: a desk has many that wait. */
const ofDeadline = (state: 'waiting' | 'done') =>
  and(
    eq(timers.requestId, sql.placeholder('requestId')),
    eq(timers.deadlineId, sql.placeholder('id')),
    // As said, else all that wait anywhere would be looked through for it.
    sql`+${timers.state} = ${state}`,
  );
const dropping = prepared((db) => db.update(timers).set({ state: 'dropped' }).where(ofDeadline('waiting')).prepare());
const rung = prepared((db) =>
  db
    .select({ ring: timers.ring, at: max(timers.at) })
    .from(timers)
    .where(and(ofDeadline('done'), gte(timers.at, sql.placeholder('start'))))
    .groupBy(timers.ring)
    .prepare(),
);

type Owner = Pick<DeadlineRow, 'id' | 'requestId'>;

/** How a deadline rings: by its rule and the calendar it is counted with. */
export interface Ringing {
  readonly rule: Pick<DeadlineRule, 'rings'>;
  readonly calendar: WorkingCalendar;
}

/** When each ring of a deadline rang last, since it began. */
const rungOf = (db: Reader, { id, requestId }: Owner, { start }: Deadline): ReadonlyMap<string, number> =>
  new Map(
    rung(db)
      .all({ id, requestId, start })
      .map(({ ring, at }) => [ring, at ?? 0]),
  );

/** Drops what would still ring for a deadline. */
export function dropTimers(tx: Transaction, { id, requestId }: Owner): void {
  dropping(tx).run({ id, requestId });
}

/** Sets the timers of a changed deadline anew; what rang already rings again only where its rule says so. */
export function resetTimers(tx: Transaction, owner: Owner, deadline: Deadline, by: Ringing): void {
  const told = rungOf(tx, owner, deadline);
  dropTimers(tx, owner);
  addTimers(tx, owner, deadline, by, told);
}

/** How many timers of a deadline would ring at once, would it be another; what rang already is not told again. */
export function ringAtOnce(
  db: Reader,
  owner: Owner,
  deadline: Deadline,
  by: Ringing & { readonly now: number },
): number {
  const told = rungOf(db, owner, deadline);
  return timersFor(deadline, by.rule, by.calendar, told).filter(({ at }) => at <= by.now).length;
}

/** Holds back what would ring for a request by now: it counts as told. */
export function holdTimers(tx: Transaction, requestId: string, now: number): void {
  tx.update(timers)
    .set({ state: 'done' })
    .where(and(eq(timers.requestId, requestId), eq(timers.state, 'waiting'), lte(timers.at, now)))
    .run();
}

/** Sets the timers of a deadline; `told`: when each ring rang last. */
export function addTimers(
  tx: Transaction,
  { id, requestId }: Owner,
  deadline: Deadline,
  { rule, calendar }: Ringing,
  told?: ReadonlyMap<string, number>,
): void {
  for (const { ring, at } of timersFor(deadline, rule, calendar, told))
    addTimer(tx, { id: newId(), requestId, deadlineId: id, ring, at, state: 'waiting' });
}

const waitingFor = prepared((db) =>
  db
    .select({ deadlineId: timers.deadlineId, ring: timers.ring, at: timers.at })
    .from(timers)
    .where(and(eq(timers.requestId, sql.placeholder('request')), sql`+${timers.state} = 'waiting'`))
    .orderBy(asc(timers.at))
    .prepare(),
);

/** What will ring for a request, in its order. */
export const waitingOf = (db: Reader, request: string) => waitingFor(db).all({ request });

export const next = prepared((db) =>
  db.select().from(timers).where(eq(timers.state, 'waiting')).orderBy(asc(timers.at)).limit(1).prepare(),
);

/** When something becomes due next, epoch ms. */
export const nextTimerAt = (db: Reader): number | null => next(db).get()?.at ?? null;
