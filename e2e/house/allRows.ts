import type { Desk } from './desk.ts';

/** Tables that say nothing of what a request is: who is signed in, what arrived at the stand-ins, answers of before, the index of find, the house’s own. */
const BESIDE =
  /^(letters|texts|notice_turns|notice_days|session|account|verification|idempotency|settings|jobs|found.*|find.*|sqlite.*|deleted_requests|__drizzle.*)$/;
/** What requests make of groups is told to whoever watches them, by another request of the group. */
const OF_GROUPS = /^notices .*(too-few|Too few)/;

/** Every row of every other table, as the database has it: its table, and all of it. */
export function allRows(desk: Desk): ReadonlySet<string> {
  const { $client } = desk.running.house.db;
  const tables = $client.prepare("select name from sqlite_master where type = 'table'").all() as { name: string }[];
  return new Set(
    tables
      .filter(({ name }) => !BESIDE.test(name))
      .flatMap(({ name }) =>
        ($client.prepare(`select * from "${name}"`).all() as object[]).map((row) => `${name} ${JSON.stringify(row)}`),
      )
      .filter((row) => !OF_GROUPS.test(row)),
  );
}

/** What of some rows is not among others. */
export const without = (some: ReadonlySet<string>, others: ReadonlySet<string>): readonly string[] =>
  [...some].filter((each) => !others.has(each));
