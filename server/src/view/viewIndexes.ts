import { inArray, notInArray, sql } from 'drizzle-orm';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { aTurn } from '../platform/turns.ts';
import { inWorker } from '../platform/workers.ts';
import { tallies } from '../request/tables.ts';
import { viewIndexes } from './tables.ts';
import { MAKE_INDEX } from './tasks.ts';
import { VIEW_INDEX, type ViewIndex } from './viewIndex.ts';

/** What an index of a view is worth: rows there are, and looks at it since the start. */
const WORTH = { rows: 1_000, looks: 3 };
/** Each makes what is stored a little slower: so many at most, those that were looked through last. */
const MOST = 24;
const HOUR = 3_600_000;
const UNUSED = 30 * 24 * HOUR;

/** Looks through a view by an index, whether it is there or not. */
interface Looks {
  readonly index: ViewIndex;
  readonly times: number;
  readonly last: number;
}
const looked = new WeakMap<House, Map<string, Looks>>();

/** Notes that a view was looked through. */
export function noteLook(house: House, index: ViewIndex): void {
  const looks = looked.get(house) ?? new Map<string, Looks>();
  looked.set(house, looks);
  const times = (looks.get(index.name)?.times ?? 0) + 1;
  looks.delete(index.name);
  looks.set(index.name, { index, times, last: house.clock.now() });
  // What was looked through long ago gives way: drafts that are typed at leave many.
  const [oldest] = looks.keys();
  if (looks.size > MOST * 10 && oldest !== undefined) looks.delete(oldest);
}

const there = ({ db }: House): ReadonlySet<string> =>
  new Set(
    db
      .all<{ readonly name: string }>(
        sql`select name from sqlite_schema where type = 'index' and substr(name, 1, ${VIEW_INDEX.length}) = ${VIEW_INDEX}`,
      )
      .map(({ name }) => name),
  );

const rowsIn = ({ db }: House, registers: readonly string[]): number =>
  db
    .select({ n: sql<number>`coalesce(sum(${tallies.n}), 0)` })
    .from(tallies)
    .where(inArray(tallies.registerId, [...registers]))
    .get()?.n ?? 0;

/**
 * Makes indexes for views that are looked through, off the thread that answers, and drops those by which nothing was
 * found for long. `rows`: how many there have to be.
 */
export async function keepViewIndexes(
  house: House,
  { rows = WORTH.rows }: { readonly rows?: number } = {},
): Promise<void> {
  const { db, config } = house;
  const looks = looked.get(house) ?? new Map<string, Looks>();
  const before = there(house);
  if (looks.size === 0 && before.size === 0) return;
  const isWorth = ({ index, times }: Looks): boolean =>
    times >= WORTH.looks && !before.has(index.name) && rowsIn(house, index.registers) >= rows;
  for (const { index } of [...looks.values()].filter(isWorth))
    await patiently(house, async () => {
      const code = await inWorker(MAKE_INDEX, { data: config.data, make: index.make });
      if (code) throw Object.assign(new Error(`The index ${index.name} could not be made: ${code}`), { code });
    });
  await patiently(house, () => noteUse(house, looks));
  for (const name of pastUse(house)) {
    await aTurn('long work');
    await patiently(house, () => db.run(sql`drop index if exists ${sql.identifier(name)}`));
  }
  await patiently(house, () => {
    db.delete(viewIndexes)
      .where(notInArray(viewIndexes.name, [...there(house)]))
      .run();
  });
}

/** Writes down when those that are there were looked by, to the hour. */
function noteUse(house: House, looks: ReadonlyMap<string, Looks>): void {
  const { db, clock } = house;
  const kept = new Map(
    db
      .select()
      .from(viewIndexes)
      .all()
      .map(({ name, usedAt }) => [name, usedAt]),
  );
  for (const name of there(house)) {
    const usedAt = looks.get(name)?.last ?? kept.get(name) ?? clock.now();
    const before = kept.get(name);
    if (before !== undefined && usedAt < before + HOUR) continue;
    db.insert(viewIndexes)
      .values({ name, usedAt })
      .onConflictDoUpdate({ target: viewIndexes.name, set: { usedAt } })
      .run();
  }
}

/** Those that are there by which nothing was found for long, or which are more than there may be. */
function pastUse(house: House): readonly string[] {
  const names = there(house);
  const used = house.db.select().from(viewIndexes).orderBy(sql`${viewIndexes.usedAt} desc, ${viewIndexes.name}`).all();
  return used
    .filter(({ name }) => names.has(name))
    .filter(({ usedAt }, place) => place >= MOST || usedAt < house.clock.now() - UNUSED)
    .map(({ name }) => name);
}
