import type { AnswerOf } from '@tolvek/contract';
import { dateAt } from '@tolvek/core/deadline';
import { isSame } from '@tolvek/core/own';
import {
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
import { type Said, said } from '@tolvek/words';
import { between, desc } from 'drizzle-orm';
import { groundNamesIn, reasonsOf } from '../people/history.ts';
import { setterIn } from '../people/kept.ts';
import { accessOn } from '../people/onDay.ts';
import { groupNames, namesOf, personNamed } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { wrongFields } from '../platform/problem.ts';
import { type Looked, readLog } from '../platform/tables.ts';
import { allRegisters } from '../register/queries.ts';
import { nameOf } from '../request/names.ts';
import { deskOf } from '../settings/queries.ts';

const DAY = 86_400_000;

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

/**
 * Who could do what at the end of a day, by the clock of the desk, and what was set of that on the day.
 *
 * @throws Problem 422 for a day that is not over.
 */
export function rightsOnDay(db: Reader, day: string, now: number): AnswerOf<'rightsOnDay'> {
  if (day > todayAt(db, now))
    throw wrongFields([{ field: 'day', message: said('ground:dayToCome'), fix: said('ground:dayBefore') }]);
  const { zone } = deskOf(db);
  const { access, lines } = accessOn(db, day);
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
    looks: looksOn(db, day),
    changes: lines
      .filter((line) => dateAt(line.at, zone) === day && isAboutAccess(line.change) && isToldHere(line))
      .map(({ id, at, by, about, key, change }) => ({
        ...{ id, undoable: mayBeUndone(change), at: iso(at), by: setterIn(db, by), why: whyOf(id), setter: by },
        words: groundChangeInWords(change, names),
        about: about === 'person' ? personNamed(db, key) : about === 'group' ? names.group(key) : '',
      })),
  };
}

/** Looks that are told of a day at most. */
const LOOKS = 500;

/** Who read on a day what is noted, and who looked through the eyes of another; the newest first. */
function looksOn(db: Reader, day: string): AnswerOf<'rightsOnDay'>['looks'] {
  const { zone } = deskOf(db);
  const from = Date.parse(`${day}T00:00:00Z`);
  const rows = db
    .select()
    .from(readLog)
    .where(between(readLog.at, from - DAY, from + 2 * DAY))
    .orderBy(desc(readLog.at), desc(readLog.id))
    .all()
    .filter(({ at }) => dateAt(at, zone) === day)
    .slice(0, LOOKS);
  const called_ = namesOf(
    db,
    rows.flatMap(({ by, about }) => [
      by,
      ...(about.kind === 'seen-as' && about.as && 'person' in about.as ? [about.as.person] : []),
    ]),
  );
  const groups = groupNames(db);
  const registers = allRegisters(db);
  const labels = new Map(
    registers.map(({ id, fields }) => [id, new Map(fields.map(({ key, label }) => [key, label]))]),
  );
  return rows.map(({ id, at, by, registerId, about, numbers }) => ({
    ...{ id, at: iso(at), by: called_.get(by) ?? '' },
    words: lookInWords(about, numbers, {
      person: (which) => called_.get(which) ?? '',
      group: (key) => groups.get(key) ?? key,
      field: (key) => labels.get(registerId)?.get(key) ?? key,
      register: registers.find(({ id: which }) => which === registerId)?.name ?? '',
    }),
  }));
}

interface LookNames {
  readonly person: (id: string) => string;
  readonly group: (key: string) => string;
  readonly field: (key: string) => string;
  readonly register: string;
}

function lookInWords(about: Looked, requests: readonly string[], names: LookNames): Said {
  if (about.kind === 'read') return said('ground:lookRead', { fields: about.fields.map(names.field), requests });
  if (about.kind === 'taken-out')
    return said('ground:tookOut', { what: about.what, as: about.as.toUpperCase(), register: names.register });
  const { as } = about;
  if (as === null) return said('ground:lookAsNobody', { requests });
  return 'person' in as
    ? said('ground:lookAs', { requests, name: names.person(as.person) })
    : said('ground:lookAsMember', { requests, groups: as.groups.map(names.group) });
}
