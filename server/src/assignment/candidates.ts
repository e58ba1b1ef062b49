import type { Asked, Candidate, Handled, HandlerRule } from '@tolvek/core/assignment';
import { addWorkingTime, NeverOpen, type WorkingCalendar } from '@tolvek/core/deadline';
import { and, count, desc, eq, inArray, isNotNull, ne, sql } from 'drizzle-orm';
import { awayIn } from '../people/absences.ts';
import { membersOf, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import type { ShownRow } from '../request/queries.ts';
import { requests, UNFINISHED } from '../request/tables.ts';
import { handlerTurns } from './tables.ts';

const FOUR_HOURS = 4 * 3_600_000;

/** By when something is pressing that is due: four working hours from now; now where nothing opens any more. */
function pressingUntil(calendar: WorkingCalendar, now: number): number {
  try {
    return addWorkingTime(calendar, now, FOUR_HOURS);
  } catch (error) {
    if (error instanceof NeverOpen) return now;
    throw error;
  }
}

/** Who handled the last request of the same person in the same register; null for nobody. */
export function lastHandlerOf(db: Reader, { id, requesterId, registerId }: ShownRow): string | null {
  if (requesterId === null) return null;
  return (
    db
      .select({ handler: requests.handlerId })
      .from(requests)
      .where(
        and(
          ...[eq(requests.requesterId, requesterId), eq(requests.registerId, registerId)],
          ...[isNotNull(requests.handlerId), ne(requests.id, id), eq(requests.trial, false)],
        ),
      )
      .orderBy(desc(requests.createdAt), desc(requests.id))
      .limit(1)
      .get()?.handler ?? null
  );
}

/** Whom a rule may think of besides the team: by name, by an answer, by who was there before, by a roster. */
export function namedBy(
  rule: HandlerRule,
  last: string | null,
  { named, onDuty }: Pick<Asked, 'named' | 'onDuty'>,
): string[] {
  return rule.ways.flatMap((way) => {
    if (way.by === 'duty') return onDuty(way);
    const person =
      way.by === 'person' ? way.person : way.by === 'last' ? last : way.by === 'field' ? named(way.field) : null;
    return person === null ? [] : [person];
  });
}

/** What some people handle that is not finished, alike together. `soon`: what is due by then is pressing. */
export function handledBy(db: Reader, ids: readonly string[], soon: number): ReadonlyMap<string, readonly Handled[]> {
  const handles = new Map<string, Handled[]>();
  const { handlerId, priority, phase, due, trial } = requests;
  const isPressing = sql<number>`${due} is not null and ${due} <= ${soon}`;
  for (const alike of db
    .select({ handler: handlerId, priority, phase, isPressing, count: count() })
    .from(requests)
    // By the phases that are not over, which the index holds: nothing is gone through of what was finished over the years.
    .where(and(inArray(handlerId, [...ids]), inArray(phase, UNFINISHED), eq(trial, false)))
    .groupBy(handlerId, priority, phase, isPressing)
    .all()) {
    const of = handles.get(alike.handler ?? '') ?? [];
    of.push({ ...alike, priority: alike.priority ?? 'normal', isPressing: alike.isPressing === 1 });
    handles.set(alike.handler ?? '', of);
  }
  return handles;
}

/** Everybody who could handle a request of a team, with what they handle: the team, and some besides. */
export function candidatesFor(
  db: Reader,
  {
    team,
    besides,
    calendar,
    now,
  }: { team: string; besides: readonly string[]; calendar: WorkingCalendar; now: number },
): readonly Candidate[] {
  const members = new Set(membersOf(db, team).map(({ id }) => id));
  const ids = [...new Set([...members, ...besides])];
  if (ids.length === 0) return [];
  const away = awayIn(db, todayAt(db, now));
  const soon = pressingUntil(calendar, now);
  const handles = handledBy(db, ids, soon);
  const turns = new Map(
    db
      .select({ person: handlerTurns.personId, at: handlerTurns.at })
      .from(handlerTurns)
      .where(and(eq(handlerTurns.team, team), inArray(handlerTurns.personId, ids)))
      .all()
      .map(({ person, at }) => [person, at]),
  );
  return ids.map((person) => ({
    person,
    isHere: (members.has(person) || personById(db, person)?.active === true) && !away.has(person),
    isOfTeam: members.has(person),
    handles: handles.get(person) ?? [],
    lastGiven: turns.get(person) ?? null,
  }));
}
