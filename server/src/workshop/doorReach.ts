import type { AnswerOf } from '@tolvek/contract';
import { type DoorDesign, isMeant } from '@tolvek/core/door';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { doorDesign } from '../door/queries.ts';
import { people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';

/** People who are named of each kind. */
const NAMED = 8;

/** Whom a door would mean today, were it as it is written, beside whom it means by what is in force. */
export function doorReach(db: Reader, slug: string, written: DoorDesign): AnswerOf<'tryDoor'> {
  const { door } = doorDesign(db, slug);
  const everybody = { ...written, audience: { ...written.audience, outOf: [] } };
  const reach = { staff: 0, contacts: 0 };
  const [comeIn, dropOut, leftOut]: [string[], string[], string[]] = [[], [], []];
  const rows = db
    .select({
      ...{ name: people.name, kind: people.kind, active: people.active },
      groups: sql<string>`(select json_group_array(group_key) from memberships where person_id = ${people.id})`,
    })
    .from(people)
    .where(and(eq(people.active, true), isNull(people.mergedInto), isNull(people.removedAt)))
    .orderBy(people.name, people.id)
    .all();
  for (const { name, kind, active, groups } of rows) {
    const who = { kind, active, groups: JSON.parse(groups) as string[] };
    const [is, was] = [isMeant(written, who), isMeant(door.design, who)];
    if (is) reach[kind === 'staff' ? 'staff' : 'contacts'] += 1;
    else if (isMeant(everybody, who)) leftOut.push(name);
    if (is && !was) comeIn.push(name);
    if (was && !is) dropOut.push(name);
  }
  const some = (names: readonly string[]) => ({ n: names.length, names: names.slice(0, NAMED) });
  return { ...reach, comeIn: some(comeIn), dropOut: some(dropOut), leftOut: some(leftOut) };
}
