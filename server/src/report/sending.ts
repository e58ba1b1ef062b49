import { dateAt } from '@tolvek/core/deadline';
import { belongs, groupsIn, NO_REQUEST, peopleIn, type Viewer } from '@tolvek/core/people';
import { type Days, type ReportDesign, stretchBeside } from '@tolvek/core/report';
import { eq } from 'drizzle-orm';
import { notifyPerson } from '../notice/notify.ts';
import { membersOf, personById, viewerIn } from '../people/queries.ts';
import { apart } from '../platform/apart.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { type Work, write } from '../platform/work.ts';
import { deskOf } from '../settings/queries.ts';
import { keepCopy } from './commands.ts';
import type { sentNow } from './look.ts';
import { allReports, goesOut, type KeptReport, reportById } from './queries.ts';
import { reports } from './tables.ts';
import { REPORT_SENT } from './tasks.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const looked = new WeakMap<House, number>();

/**
 * Freezes and sends the reports whose time has come: of the stretch that ended last, once, as their owner reads them.
 * After a stop longer than a stretch only the last goes. Gives how many went.
 */
export async function sendReports(house: House): Promise<number> {
  const minute = Math.floor(house.clock.now() / MINUTE);
  if (looked.get(house) === minute) return 0;
  looked.set(house, minute);
  return sendDue(house);
}

/** The same without asking when was looked last. */
export async function sendDue(house: House): Promise<number> {
  const { db, clock } = house;
  let went = 0;
  for (const report of allReports(db)) {
    const { draft } = report.design;
    if (draft.sends.length === 0) continue;
    const now = clock.now();
    const days = stretchBeside(draft.over, dateAt(now, deskOf(db).zone), 'before');
    const due = dueSends(db, report, days, now);
    const owner = personById(db, report.ownerId);
    if (due.length === 0 || !owner?.active) {
      // How far was looked is written down from time to time, so that what is set up later sends nothing of before.
      if (now - report.sentUntil > HOUR)
        await patiently(house, () => write(house, ({ tx }) => lookedUntil(tx, report.id, now)));
      continue;
    }
    const sent = await apart(house, REPORT_SENT, [viewerIn(db, owner), draft, days, hearers(db, due)]);
    went += await patiently(house, () => write(house, (work) => send(work, report, days, { ...sent, until: now })));
  }
  return went;
}

/** The ways of a report whose time came since was looked last. */
const dueSends = (db: Reader, { design: { draft }, sentUntil }: KeptReport, days: Days, now: number) =>
  draft.sends.filter(({ calendar }) => {
    const at = goesOut(db, calendar, days);
    return at !== null && at > sentUntil && at <= now;
  });

const lookedUntil = (tx: Transaction, id: string, now: number): void =>
  void tx.update(reports).set({ sentUntil: now }).where(eq(reports.id, id)).run();

interface Going extends ReturnType<typeof sentNow> {
  /** Until when was looked for what is due. */
  readonly until: number;
}

/** Freezes a report and sends it, unless that was done meanwhile. */
function send(work: Work, { id }: KeptReport, days: Days, { parts, letters, until }: Going): number {
  const { tx } = work;
  const now = reportById(tx, id);
  if (!now || now.removedAt !== null || now.sentUntil >= until) return 0;
  const copy = keepCopy(work, now, days, { parts, byId: now.ownerId, sent: letters.length });
  const { name, over } = now.design.draft;
  for (const { personId, ...told } of letters) {
    const person = personById(tx, personId);
    if (person) notifyPerson(work, person, { kind: 'report', report: id, copy, name, over, ...days, ...told });
  }
  lookedUntil(tx, id, until);
  return 1;
}

/** Who gets a report by some of its ways: each once. */
function hearers(db: Reader, sends: ReportDesign['sends']): readonly Viewer[] {
  const found = sends.flatMap(({ to }) => [
    ...groupsIn(to).flatMap((group) => membersOf(db, group)),
    ...peopleIn(to).flatMap((id) => personById(db, id) ?? []),
  ]);
  return [...new Map(found.map((person) => [person.id, person])).values()]
    .filter(({ active, kind }) => active && kind === 'staff')
    .map((person) => viewerIn(db, person))
    .filter((viewer) => sends.some(({ to }) => belongs(to, viewer, NO_REQUEST)));
}
