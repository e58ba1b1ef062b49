import type Sqlite from 'better-sqlite3';
import { renewDesigns } from './designs.ts';

type Json = Readonly<Record<string, unknown>>;
/** As a form kept time when this step was written. */
interface Single {
  readonly calendar: string;
  readonly remindBefore: number;
  readonly escalateAfter: number;
  readonly escalateTo: string;
}

/** The one deadline of before as the finish in a list, with what rang before it was due and after. */
const inList = ({ calendar, remindBefore, escalateAfter, escalateTo }: Single): Json => ({
  ...{ calendar, leads: escalateTo },
  deadlines: [
    {
      ...{ key: 'finish', name: '', begins: { on: 'arrival' }, length: { by: 'routing' }, stands: { on: 'paused' } },
      ends: { on: 'finished' },
      rings: [
        { key: 'reminder', at: 0 - remindBefore, tells: ['working'], does: [] },
        { key: 'escalation', at: escalateAfter, tells: ['leads', 'working'], does: [] },
      ],
    },
  ],
});

const renewed = (part: Json): Json =>
  part.deadline && 'escalateTo' in (part.deadline as Json)
    ? { ...part, deadline: inList(part.deadline as unknown as Single) }
    : part;

/** A form or register whose deadlines are a list. */
export const withDeadlines = (design: Json): Json => {
  const usual = design.usual as Json | undefined;
  return { ...renewed(design), ...(usual && { usual: renewed(usual) }) };
};

/**
 * What a request is due by becomes a list in every state and draft of forms and registers; what rang, and will, keeps its
 * name. When what is over ended is told by its request.
 */
export function severalDeadlines(db: Sqlite.Database): void {
  renewDesigns(db, withDeadlines);
  db.prepare(
    `update deadlines set ended_at = (select finished_at from requests where requests.id = deadlines.request_id)
     where state = 'ended'`,
  ).run();
}
