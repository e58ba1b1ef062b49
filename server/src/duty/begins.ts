import { AHEAD, type Duty, dutiesBetween } from '@tolvek/core/roster';
import { eq } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { notifyPerson } from '../notice/notify.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { type Work, write } from '../platform/work.ts';
import { allRosters, isHereAt, presenceFrom, rosterByKey } from '../roster/queries.ts';
import { dutiesTold } from '../roster/tables.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const looked = new WeakMap<House, number>();

/**
 * Tells whoever comes on duty that they do, where their roster says so: each once, through restarts, and after a stop those
 * whose duty still goes on. A roster that tells for the first time tells of what begins from then on. Gives how many were told.
 */
export async function tellDuties(house: House): Promise<number> {
  const { db, clock } = house;
  const minute = Math.floor(clock.now() / MINUTE);
  if (looked.get(house) === minute) return 0;
  looked.set(house, minute);
  let told = 0;
  for (const { key, tells, retired } of allRosters(db)) {
    if (!tells || retired || !isToLook(db, key, clock.now())) continue;
    told += await patiently(house, () => write(house, (work) => tellOf(work, key)));
  }
  return told;
}

const toldUntil = (db: Reader, key: string): number | undefined =>
  db.select().from(dutiesTold).where(eq(dutiesTold.roster, key)).get()?.at;

/** Who has come on duty since a moment and is still, with the end of their duty. */
function begunSince(db: Reader, key: string, since: number, now: number): readonly Duty[] {
  const roster = rosterByKey(db, key)?.draft;
  if (!roster) return [];
  const calendar = calendarOf(db, roster.calendar);
  // What goes on from before is cut at its beginning, and so told apart from what begins.
  const begins = ({ from, to }: Duty): boolean => from > since && from <= now && to > now;
  if (!dutiesBetween(roster, calendar, since, now + 1).some(begins)) return [];
  return dutiesBetween(roster, calendar, since, now + AHEAD * DAY).filter(begins);
}

/** Whether somebody is to be told, or how far was looked is to be written down again. */
function isToLook(db: Reader, key: string, now: number): boolean {
  const since = toldUntil(db, key);
  return since === undefined || now - since > HOUR || begunSince(db, key, since, now).length > 0;
}

function tellOf(work: Work, key: string): number {
  const { tx, now } = work;
  const since = toldUntil(tx, key);
  tx.insert(dutiesTold)
    .values({ roster: key, at: now })
    .onConflictDoUpdate({ target: dutiesTold.roster, set: { at: now } })
    .run();
  if (since === undefined || since >= now) return 0;
  const presence = presenceFrom(tx, since);
  const here = begunSince(tx, key, since, now).filter(({ person, from }) => isHereAt(presence, person, from));
  for (const { person, from, to } of here) {
    const found = personById(tx, person);
    const about = { roster: key, by: null, from, to, note: '' };
    if (found) notifyPerson(work, found, { kind: 'duty', did: 'begins', ...about });
  }
  return here.length;
}
