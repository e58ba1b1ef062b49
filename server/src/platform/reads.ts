import { AsyncLocalStorage } from 'node:async_hooks';
import type { House } from './house.ts';
import { newId } from './newId.ts';
import { patiently } from './patience.ts';
import { readLog } from './tables.ts';
import { write } from './work.ts';

/** What of one request somebody was told whose reading is noted. */
export interface Read {
  /** Who was told, by id. */
  readonly by: string;
  readonly registerId: string;
  readonly number: string;
  /** The keys of the fields that were told. */
  readonly fields: readonly string[];
}

type Telling = () => Read | null;
/** What may have been told in one answer, and what of it is written down already. */
interface Held {
  readonly tellings: Telling[];
  readonly written: Set<string>;
}
const journal = new AsyncLocalStorage<Held>();
const held = (): Held => ({ tellings: [], written: new Set() });

/** Has it looked up, when an answer is ready, what was told in it; `tell`: null where nothing was. */
export const mayHaveTold = (tell: Telling): void => void journal.getStore()?.tellings.push(tell);

/** Whether nothing was told so far in this answer whose reading may be noted. */
export const toldNothing = (): boolean => (journal.getStore()?.tellings.length ?? 0) === 0;

/** Does some work, and gives what was told in it whose reading is noted. */
export function listening<T>(work: () => T): { readonly value: T; readonly reads: readonly Read[] } {
  const here = held();
  const value = journal.run(here, work);
  return { value, reads: here.tellings.flatMap((tell) => tell() ?? []) };
}

/** Answers, and writes down before the answer leaves what was told in it whose reading is noted. */
export const answered = <T>(house: House, work: () => Promise<T>): Promise<T> =>
  journal.run(held(), async () => {
    const answer = await work();
    await settleReads(house);
    return answer;
  });

/** Writes down what was told so far: one row for each who was told and each register. It is on the disk afterwards. */
export async function settleReads(house: House): Promise<void> {
  const here = journal.getStore();
  const told = here?.tellings.splice(0).flatMap((tell) => tell() ?? []) ?? [];
  // What is told again in the same answer is written down once.
  const reads = told.filter((read) => {
    const name = JSON.stringify(read);
    return !here?.written.has(name) && here?.written.add(name);
  });
  if (reads.length === 0) return;
  const rows = new Map<string, { by: string; registerId: string; fields: Set<string>; numbers: Set<string> }>();
  for (const { by, registerId, number, fields } of reads) {
    const key = `${by} ${registerId}`;
    const row = rows.get(key) ?? { by, registerId, fields: new Set<string>(), numbers: new Set<string>() };
    rows.set(key, row);
    for (const field of fields) row.fields.add(field);
    row.numbers.add(number);
  }
  await patiently(house, async () =>
    write(house, ({ tx, now }) => {
      for (const { by, registerId, fields, numbers } of rows.values())
        tx.insert(readLog)
          .values({
            ...{ id: newId(), at: now, by, registerId, numbers: [...numbers] },
            about: { kind: 'read', fields: [...fields] },
          })
          .run();
    }),
  );
}
