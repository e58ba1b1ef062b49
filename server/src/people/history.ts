import {
  type GroundChange,
  type GroundField,
  type GroundNames,
  groundChangeInWords,
  mayBeUndone,
} from '@tolvek/core/people';
import { type FieldValue, type NameOf, sayValue } from '@tolvek/core/register';
import type { Words } from '@tolvek/words';
import { and, desc, eq, inArray } from 'drizzle-orm';
import { adding } from '../platform/adding.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import type { Work } from '../platform/work.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { setterIn } from './kept.ts';
import { groupNames, personNamed } from './queries.ts';
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

/** What groups, people and fields of profiles are called now. */
export function groundNamesIn(db: Reader, nameOf: NameOf): GroundNames {
  const groups = groupNames(db);
  return {
    group: (each) => groups.get(each) ?? each,
    person: (id) => personNamed(db, id) || id,
    ...profileNames(db, nameOf),
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

/** What was set of a person or a group, the newest first; `nameOf`: what people and terms are called. */
export function groundHistoryOf(
  db: Reader,
  about: About,
  key: string,
  nameOf: NameOf,
): {
  readonly id: string;
  readonly at: string;
  readonly by: Words;
  readonly words: Words;
  readonly undoable: boolean;
}[] {
  const names = groundNamesIn(db, nameOf);
  return db
    .select()
    .from(groundHistory)
    .where(and(eq(groundHistory.about, about), inArray(groundHistory.key, [key, ...partsOf(db, about, key)])))
    .orderBy(desc(groundHistory.at), desc(groundHistory.id))
    .limit(SHOWN)
    .all()
    .map(({ id, at, by, change }) => ({
      id,
      at: iso(at),
      by: setterIn(db, by),
      words: groundChangeInWords(change as GroundChange, names),
      undoable: mayBeUndone(change as GroundChange),
    }));
}
