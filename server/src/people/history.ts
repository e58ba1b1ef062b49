import { conditionInWords, parseExpression } from '@tolvek/core/expression';
import { REGISTER } from '@tolvek/core/form';
import {
  type GroundChange,
  type GroundField,
  type GroundNames,
  groundChangeInWords,
  mayBeUndone,
} from '@tolvek/core/people';
import { type FieldValue, type NameOf, personScope, sayValue } from '@tolvek/core/register';
import { said, type Words } from '@tolvek/words';
import { and, desc, eq, gte, inArray, type SQL, sql } from 'drizzle-orm';
import { titleWithId } from '../design/queries.ts';
import { adding } from '../platform/adding.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { inList } from '../platform/prepared.ts';
import type { Work } from '../platform/work.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { setterIn } from './kept.ts';
import { groupNames, knownNames, personNamed } from './queries.ts';
import { groundHistory, people } from './tables.ts';

const addLine = adding(groundHistory);

type About = (typeof groundHistory.$inferSelect)['about'];

/** Writes down what was set of a person or a group. */
export function noteGround({ tx, now, actor }: Work, about: About, key: string, change: GroundChange): void {
  addLine(tx, { id: newId(), at: now, by: actor ?? '', about, key, change });
}

type Setting = string | boolean | null;
const asText = (value: Setting): string => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value ?? ''));

/** Writes down that a setting of a person or a group is another one now. */
export const noteChanged = (
  work: Work,
  about: About,
  key: string,
  field: GroundField,
  before: Setting,
  after: Setting,
): void => noteGround(work, about, key, { kind: 'changed', field, before: asText(before), after: asText(after) });

/** Lines that are shown. */
const SHOWN = 50;

/** What fields of profiles are called, and what is shown of what stands in them. */
function profileNames(db: Reader, nameOf: NameOf): Pick<GroundNames, 'field' | 'value'> {
  const { fields } = profileDesignOf(db);
  const fieldOf = (key: string) => fields.find((field) => field.key === key);
  return {
    field: (key) => fieldOf(key)?.label ?? key,
    value: (key, value) => {
      const field = fieldOf(key);
      return field ? sayValue(field, value as FieldValue, nameOf) : String(value);
    },
  };
}

/** What groups, people, registers and fields of profiles are called now. */
export function groundNamesIn(db: Reader, nameOf: NameOf): GroundNames {
  const groups = groupNames(db);
  return {
    group: (each) => groups.get(each) ?? each,
    person: (id) => personNamed(db, id) || id,
    register: (id) => titleWithId(db, REGISTER, id) ?? id,
    ...profileNames(db, nameOf),
    condition: (text) => {
      const parsed = parseExpression(text);
      return parsed.ok ? conditionInWords(parsed.value, personScope(profileDesignOf(db).fields, knownNames(db))) : text;
    },
  };
}

/** The records that became a part of somebody’s. */
const partsOf = (db: Reader, about: About, key: string): readonly string[] =>
  about === 'person'
    ? db
        .select({ id: people.id })
        .from(people)
        .where(eq(people.mergedInto, key))
        .all()
        .map(({ id }) => id)
    : [];

/** A line of a history, as it is shown. */
interface GroundLine {
  readonly id: string;
  readonly at: string;
  readonly by: Words;
  readonly words: Words;
  readonly undoable: boolean;
  readonly why: string;
  readonly setter: string;
}

/** A reason stands at the line that it is of, and is none by itself. */
export const isNoReason = sql`json_extract(${groundHistory.change}, '$.kind') <> 'why'`;

/** Why each of some lines was, as it was said last; empty where nobody said. */
export function reasonsOf(
  db: Reader,
  lines: readonly Pick<typeof groundHistory.$inferSelect, 'about' | 'key' | 'at'>[],
): (id: string) => string {
  // A reason stands under what its line is about, and comes after it.
  const said = db
    .select({ change: groundHistory.change })
    .from(groundHistory)
    .where(
      and(
        inArray(groundHistory.about, [...new Set(lines.map(({ about }) => about))]),
        inList(groundHistory.key, [...new Set(lines.map(({ key }) => key))]),
        gte(
          groundHistory.at,
          lines.reduce((first, { at }) => Math.min(first, at), Number.MAX_SAFE_INTEGER),
        ),
        sql`json_extract(${groundHistory.change}, '$.kind') = 'why'`,
      ),
    )
    .orderBy(groundHistory.at, groundHistory.id)
    .all()
    .map(({ change }) => change as Extract<GroundChange, { kind: 'why' }>);
  const reasons = new Map(said.map(({ of, text }) => [of, text]));
  return (id) => reasons.get(id) ?? '';
}

/** Lines in words, the newest first: at most fifty. */
function linesWhere(
  db: Reader,
  which: SQL | undefined,
  nameOf: NameOf,
  around: (line: typeof groundHistory.$inferSelect, names: GroundNames) => Words = inWords,
): GroundLine[] {
  const names = groundNamesIn(db, nameOf);
  const lines = db
    .select()
    .from(groundHistory)
    .where(and(which, isNoReason))
    .orderBy(desc(groundHistory.at), desc(groundHistory.id))
    .limit(SHOWN)
    .all();
  const whyOf = reasonsOf(db, lines);
  return lines.map((line) => ({
    id: line.id,
    at: iso(line.at),
    by: setterIn(db, line.by),
    words: around(line, names),
    undoable: mayBeUndone(line.change as GroundChange),
    ...{ why: whyOf(line.id), setter: line.by },
  }));
}

const inWords = ({ change }: { readonly change: object }, names: GroundNames): Words =>
  groundChangeInWords(change as GroundChange, names);

/** Whose rights a line is about; null for those of a whole register. */
function subjectOfLine({ about, key }: typeof groundHistory.$inferSelect, names: GroundNames): Words | null {
  if (about === 'everyone') return said('ground:allStaff');
  return about === 'person' ? names.person(key) : about === 'group' ? names.group(key) : null;
}

/** What was set of a person or a group; `nameOf`: what people and terms are called. */
export const groundHistoryOf = (
  db: Reader,
  about: About,
  key: string,
  nameOf: NameOf,
  ...others: readonly string[]
): GroundLine[] =>
  linesWhere(
    db,
    and(eq(groundHistory.about, about), inArray(groundHistory.key, [key, ...others, ...partsOf(db, about, key)])),
    nameOf,
  );

/** What was set of the rights of one register, with whose rights each line is about. */
export const registerRightsHistory = (db: Reader, register: string, nameOf: NameOf): GroundLine[] =>
  linesWhere(db, sql`json_extract(${groundHistory.change}, '$.register') = ${register}`, nameOf, (line, names) => {
    const who = subjectOfLine(line, names);
    return who === null ? inWords(line, names) : said('ground:lineOf', { who, what: inWords(line, names) });
  });
