import { AHEAD, type Duty, dutiesBetween, type HandsOver, peopleOn, type Roster } from '@tolvek/core/roster';
import { eq } from 'drizzle-orm';
import { giveByRule } from '../assignment/follow.ts';
import { givenBy } from '../assignment/given.ts';
import { calendarOf } from '../calendar/queries.ts';
import { notifyPerson } from '../notice/notify.ts';
import { personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { type Work, write } from '../platform/work.ts';
import { requestById } from '../request/queries.ts';
import { allRosters, isHereAt, onDuty, presenceFrom, rosterByKey } from '../roster/queries.ts';
import { dutiesTold } from '../roster/tables.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** Requests that are handed over in one write. */
const AT_ONCE = 5;
const looked = new WeakMap<House, number>();

/**
 * Hands over to whoever comes on duty, and tells them that they do, where their roster says so: each once, through restarts,
 * and after a stop those whose duty still goes on. A roster that does so for the first time does of what begins from then on.
 * Gives how much happened.
 */
export async function tellDuties(house: House): Promise<number> {
  const { db, clock } = house;
  const minute = Math.floor(clock.now() / MINUTE);
  if (looked.get(house) === minute) return 0;
  looked.set(house, minute);
  let told = 0;
  for (const roster of allRosters(db)) {
    const { key, tells, handsOver, retired } = roster;
    if ((!tells && !handsOver) || retired) continue;
    const now = clock.now();
    const since = toldUntil(db, key);
    const hasBegun = since !== undefined && begunSince(db, key, since, now).length > 0;
    // Where nobody has, how far was looked is written down again from time to time.
    if (since !== undefined && !hasBegun && now - since <= HOUR) continue;
    // What was left by a kill is handed over the next time: that this was looked at is written down last.
    if (handsOver && hasBegun) told += await handOver(house, roster, handsOver);
    told += await patiently(house, () => write(house, (work) => tellOf(work, key)));
  }
  return told;
}

/** Hands what somebody was given by a roster to whoever is on duty now, a few requests at a time. */
async function handOver(house: House, roster: Roster, what: HandsOver): Promise<number> {
  const { db, clock } = house;
  const on = onDuty(db, { roster: roster.key }, clock.now());
  const off = peopleOn(roster).filter((person) => !on.includes(person));
  const given = on.length === 0 ? [] : givenBy(db, roster.key, off, what);
  let passed = 0;
  for (let from = 0; from < given.length; from += AT_ONCE)
    passed += await patiently(house, () =>
      write(house, (work) => given.slice(from, from + AT_ONCE).filter((id) => passOn(work, id, off)).length),
    );
  return passed;
}

/** Gives a request anew by the rule of its row, where somebody of those who are off duty has it still. */
function passOn(work: Work, id: string, off: readonly string[]): boolean {
  const request = requestById(work.tx, id);
  if (!request?.handlerId || !off.includes(request.handlerId)) return false;
  const given = giveByRule(work, request);
  return given !== null && given.handlerId !== request.handlerId;
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

function tellOf(work: Work, key: string): number {
  const { tx, now } = work;
  const since = toldUntil(tx, key);
  tx.insert(dutiesTold)
    .values({ roster: key, at: now })
    .onConflictDoUpdate({ target: dutiesTold.roster, set: { at: now } })
    .run();
  if (since === undefined || since >= now) return 0;
  if (!rosterByKey(tx, key)?.draft.tells) return 0;
  const presence = presenceFrom(tx, since);
  const here = begunSince(tx, key, since, now).filter(({ person, from }) => isHereAt(presence, person, from));
  for (const { person, from, to } of here) {
    const found = personById(tx, person);
    const about = { roster: key, by: null, from, to, note: '' };
    if (found) notifyPerson(work, found, { kind: 'duty', did: 'begins', ...about });
  }
  return here.length;
}
