import type { AnswerOf } from '@tolvek/contract';
import { dateAt } from '@tolvek/core/deadline';
import { isSame } from '@tolvek/core/own';
import {
  type Access,
  type AuditLine,
  accessAt,
  type GroundChange,
  groundChangeInWords,
  holdersIn,
  isToldHere,
  mayBeUndone,
  REGISTER_RIGHTS,
  RIGHTS,
  type Right,
  rightInWords,
} from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { desc, eq, gt } from 'drizzle-orm';
import { differingRegisters, grantsIn } from '../people/given.ts';
import { entryOf } from '../people/groups.ts';
import { groundNamesIn, reasonsOf } from '../people/history.ts';
import { setterIn } from '../people/kept.ts';
import { namesOf, personNamed } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { groundHistory, groupEntries, people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { wrongFields } from '../platform/problem.ts';
import { nameOf } from '../request/names.ts';
import { deskOf } from '../settings/queries.ts';

/** Changes that say what people may do. */
const ABOUT_ACCESS: ReadonlySet<GroundChange['kind']> = new Set([
  'added',
  'given',
  'taken',
  'apart',
  'put-back',
  'differing',
  'entered',
  'left',
  'merged',
]);

const isAboutAccess = (change: GroundChange): boolean =>
  ABOUT_ACCESS.has(change.kind) || (change.kind === 'changed' && change.field === 'active');

const accessNow = (db: Reader): Access => ({
  staff: new Map(
    db
      .select({ id: people.id, active: people.active })
      .from(people)
      .where(eq(people.kind, 'staff'))
      .all()
      .map(({ id, active }) => [id, active]),
  ),
  entries: db.select().from(groupEntries).all().map(entryOf),
  grants: grantsIn(db, null),
  registers: [...differingRegisters(db).values()],
});

const DAY = 86_400_000;

/**
 * Who could do what at the end of a day, by the clock of the desk, and what was set of that on the day.
 *
 * @throws Problem 422 for a day that is not over.
 */
export function rightsOnDay(db: Reader, day: string, now: number): AnswerOf<'rightsOnDay'> {
  if (day > todayAt(db, now))
    throw wrongFields([{ field: 'day', message: said('ground:dayToCome'), fix: said('ground:dayBefore') }]);
  const { zone } = deskOf(db);
  // Whatever the zone: a day before its date begins in UTC, it had not begun.
  const since = Date.parse(`${day}T00:00:00Z`) - DAY;
  const lines = db
    .select()
    .from(groundHistory)
    .where(gt(groundHistory.at, since))
    .orderBy(desc(groundHistory.at), desc(groundHistory.id))
    .all()
    // What was set of the desk itself settles nobody’s rights.
    .flatMap(({ about, ...line }) =>
      about === 'desk' ? [] : [{ ...line, about, change: line.change as GroundChange }],
    );
  const later = lines.filter(({ at }) => dateAt(at, zone) > day);
  const access = accessAt(accessNow(db), later satisfies readonly AuditLine[], 0);
  const names = groundNamesIn(db, nameOf(db));
  const whyOf = reasonsOf(db, lines);
  const holdersOf = holdersIn(access, day);
  const called = namesOf(db, [...access.staff.keys()]);
  const told = (right: Right, register?: string) => ({
    ...{ right, words: rightInWords(right) },
    people: holdersOf(right, register)
      .map((id) => ({ id, name: called.get(id) ?? '' }))
      .sort((a, b) => a.name.localeCompare(b.name)),
  });
  return {
    staff: [...access.staff.values()].filter(Boolean).length,
    rights: RIGHTS.map((right) => told(right)),
    registers: access.registers.flatMap(({ register }) => {
      const others = REGISTER_RIGHTS.filter((right) => !isSame(holdersOf(right), holdersOf(right, register)));
      return others.length === 0
        ? []
        : [{ name: names.register(register), rights: others.map((right) => told(right, register)) }];
    }),
    changes: lines
      .filter((line) => dateAt(line.at, zone) === day && isAboutAccess(line.change) && isToldHere(line))
      .map(({ id, at, by, about, key, change }) => ({
        ...{ id, undoable: mayBeUndone(change), at: iso(at), by: setterIn(db, by), why: whyOf(id), setter: by },
        words: groundChangeInWords(change, names),
        about: about === 'person' ? personNamed(db, key) : about === 'group' ? names.group(key) : '',
      })),
  };
}
