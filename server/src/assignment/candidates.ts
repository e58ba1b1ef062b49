import type { Asked, Candidate, Handled, HandlerRule } from '@tolvek/core/assignment';
import { addWorkingTime, NeverOpen, type WorkingCalendar } from '@tolvek/core/deadline';
import { and, desc, eq, isNotNull, ne, sql, sum } from 'drizzle-orm';
import { awayIn } from '../people/absences.ts';
import { membersOf, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import type { ShownRow } from '../request/queries.ts';
import { handled, requests } from '../request/tables.ts';
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

const counting = prepared((db) => {
  const { handlerId, priority, phase, due, n } = handled;
  const isPressing = sql<number>`${due} <= ${sql.placeholder('soon')}`;
  return db
    .select({ handler: handlerId, priority, phase, isPressing, count: sum(n).mapWith(Number) })
    .from(handled)
    .where(sql`${handlerId} in (select value from json_each(${sql.placeholder('ids')}))`)
    .groupBy(handlerId, priority, phase, isPressing)
    .prepare();
});

/** What some people handle that is not finished, alike together. `soon`: what is due by then is pressing. */
export function handledBy(db: Reader, ids: readonly string[], soon: number): ReadonlyMap<string, readonly Handled[]> {
  const handles = new Map<string, Handled[]>();
  for (const { handler, isPressing, ...alike } of counting(db).all({ ids: JSON.stringify(ids), soon })) {
    const of = handles.get(handler) ?? [];
    of.push({ ...alike, isPressing: isPressing === 1 });
    handles.set(handler, of);
  }
  return handles;
}

const turnsOf = prepared((db) =>
  db
    .select({ person: handlerTurns.personId, at: handlerTurns.at })
    .from(handlerTurns)
    .where(eq(handlerTurns.team, sql.placeholder('team')))
    .prepare(),
);

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
    turnsOf(db)
      .all({ team })
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
