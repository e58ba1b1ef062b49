import { dateAt } from '@tolvek/core/deadline';
import { awayOn, type StandIn } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { and, count, eq, gte, isNull, or, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { noteGround } from './history.ts';
import { type PersonRow, peopleHolding, personById } from './queries.ts';
import { absencesOn, settleStandIns, todayAt } from './settle.ts';
import { absences, standIns } from './tables.ts';

export type AbsenceRow = typeof absences.$inferSelect;

/** Whether an absence is not over on a day. */
const lastsUntil = (day: string) => or(isNull(absences.untilDay), gte(absences.untilDay, day));

/** The absences of somebody that are not over, the earliest first. */
export const absencesOf = (db: Reader, personId: string, day: string): readonly AbsenceRow[] =>
  db
    .select()
    .from(absences)
    .where(and(eq(absences.personId, personId), lastsUntil(day)))
    .orderBy(absences.fromDay)
    .all();

/** Every absence that was not over at a moment (epoch ms), by the days of a zone. */
export const absencesSince = (db: Reader, since: number, zone: string): readonly AbsenceRow[] =>
  db
    .select()
    .from(absences)
    .where(lastsUntil(dateAt(since, zone)))
    .all();

export interface NewAbsence {
  readonly person: string;
  readonly from: string;
  readonly until: string | null;
  readonly substitute: string | null;
}

/**
 * Says that somebody of the staff is away, and who decides in their place. Returns the id, and the places that somebody takes by it from now on.
 *
 * @throws Problem 404, 422 when it ends before it begins or is over, when they are away then already, or the
 *   substitute is nobody who could.
 */
export function goAway(
  work: Work,
  { person, from, until, substitute }: NewAbsence,
): { readonly id: string; readonly standing: readonly StandIn[] } {
  const { tx, now } = work;
  const row = personById(tx, person);
  if (row?.kind !== 'staff') throw notFound('person');
  const day = todayAt(tx, now);
  const problems = [];
  if (until !== null && until < from)
    problems.push({ field: 'until', message: said('absences:endsBefore'), fix: said('absences:laterEnd') });
  else if (until !== null && until < day)
    problems.push({ field: 'until', message: said('absences:absenceOver'), fix: said('absences:laterAbsence') });
  const other = absencesOf(tx, person, from).find(({ fromDay }) => until === null || fromDay <= until);
  if (other && problems.length === 0)
    problems.push({ field: 'from', message: said('absences:awayAlready'), fix: said('absences:endAbsenceFirst') });
  const taker = substitute === null ? null : personById(tx, substitute);
  if (taker !== null && !(taker?.active && taker.kind === 'staff' && taker.id !== person))
    problems.push({ field: 'substitute', message: said('absences:cannotStandIn'), fix: said('absences:chooseOther') });
  // Whoever looks after people takes nobody’s place by their own word: they would read what is asked of that one.
  if (taker !== null && taker?.id === work.actor && person !== work.actor)
    problems.push({ field: 'substitute', message: said('absences:notYourself'), fix: said('absences:theyChoose') });
  if (problems.length > 0) throw wrongFields(problems);
  const id = newId();
  tx.insert(absences).values({ id, personId: person, fromDay: from, untilDay: until, substituteId: substitute }).run();
  const standing = settleStandIns(tx, day);
  noteGround(work, 'person', person, { kind: 'away', from, until, substitute });
  return { id, standing };
}

/** Somebody is back, or does not go: their absence ends before today. @throws Problem 404 */
export function comeBack(work: Work, person: string, id: string): void {
  const { tx, now } = work;
  const row = tx.select().from(absences).where(eq(absences.id, id)).get();
  const day = todayAt(tx, now);
  if (row?.personId !== person || (row.untilDay !== null && row.untilDay < day)) throw notFound('absence');
  if (row.fromDay >= day) tx.delete(absences).where(eq(absences.id, id)).run();
  else
    tx.update(absences)
      .set({ untilDay: sql`date(${day}, '-1 day')` })
      .where(eq(absences.id, id))
      .run();
  settleStandIns(tx, day);
  const { fromDay: from, untilDay: until, substituteId: substitute } = row;
  noteGround(work, 'person', person, { kind: 'back', from, until, substitute });
}

/** Who is away on a day, by id. */
export const awayIn = (db: Reader, day: string): ReadonlySet<string> =>
  new Set(absencesOn(db, day).map(({ person }) => person));

/**
 * Whom to ask for a decision that a holder of a seat is asked for: who holds it and is there, or else whoever
 * takes their place; those who are away where nobody does.
 */
export function askedFor(db: Reader, holder: string, day: string): readonly PersonRow[] {
  const holding = peopleHolding(db, holder);
  const away = absencesOn(db, day);
  const present = holding.filter(({ id }) => awayOn(away, id, day) === null);
  if (present.length > 0) return present;
  const standing = standInsOf(db, holder).flatMap((id) => personById(db, id) ?? []);
  return standing.length > 0 ? standing : holding;
}

/** Who takes the place of a holder of seats today, by id. */
export const standInsOf = (db: Reader, holder: string): readonly string[] =>
  db
    .select({ id: standIns.personId })
    .from(standIns)
    .where(eq(standIns.holder, holder))
    .all()
    .map(({ id }) => id);

/** How many absences that are not over have somebody as the substitute. */
export const absencesWith = (db: Reader, personId: string, day: string): number =>
  db
    .select({ n: count() })
    .from(absences)
    .where(and(eq(absences.substituteId, personId), or(isNull(absences.untilDay), gte(absences.untilDay, day))))
    .get()?.n ?? 0;
