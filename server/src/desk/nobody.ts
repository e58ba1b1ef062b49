import { asc, eq } from 'drizzle-orm';
import { raiseAlarm } from '../approval/alarm.ts';
import { approvalRounds } from '../approval/tables.ts';
import { todayAt } from '../people/settle.ts';
import { accessTurns } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { inGroups } from '../platform/turns.ts';
import { write } from '../platform/work.ts';
import { requestById } from '../request/queries.ts';

/** Looks after people came, went or are away whether what waits for a decision still waits for somebody. */
export class DecisionWatch {
  private seen = '';

  constructor(private readonly house: House) {}

  async look(): Promise<void> {
    const { db, clock } = this.house;
    const now = `${accessTurns(db)} ${todayAt(db, clock.now())}`;
    if (now === this.seen) return;
    const open = db
      .select({ request: approvalRounds.requestId })
      .from(approvalRounds)
      .where(eq(approvalRounds.state, 'open'))
      .orderBy(asc(approvalRounds.openedAt))
      .all();
    for await (const group of inGroups(open))
      await patiently(this.house, () =>
        write(this.house, (work) => {
          for (const { request: id } of group) {
            const request = requestById(work.tx, id);
            if (request) raiseAlarm(work, request);
          }
        }),
      );
    this.seen = now;
  }
}
