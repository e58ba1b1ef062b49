import './followers.ts';
import { setPriority } from 'node:os';
import { resolve } from 'node:path';
import { findingsOf } from '@tolvek/core/form';
import { pino } from 'pino';
import { workerData } from 'piscina';
import { takeInRows as takenIn } from '../intake/takeInRows.ts';
import type { Apart, OnData } from '../platform/apart.ts';
import { connect } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { Problem } from '../platform/problem.ts';
import { Troubles } from '../platform/troubles.ts';
import type { Doing, Ready } from '../platform/workers.ts';
import type { LOOK_THROUGH, TAKE_IN_ROWS, TRY_CONDITION } from '../workshop/tasks.ts';
import { tryCondition as tried } from '../workshop/tries.ts';

/** The priority of a thread that gives way to whoever answers, as `nice` counts. */
const GIVES_WAY = 10;
/** How long a thread waits for a lock, ms: nobody is held up by it. */
const BUSY_TIMEOUT = 5_000;

// On Linux this is the priority of the thread alone; elsewhere it would be that of the whole process.
try {
  if (workerData.givesWay && process.platform === 'linux') setPriority(GIVES_WAY);
} catch {
  // Where it may not be set, all have the same.
}

export const ready: Ready = () => true;
export const findings: Doing<typeof LOOK_THROUGH> = ({ design, around }) => findingsOf(design, around);
export const takeInRows: Doing<(typeof TAKE_IN_ROWS)['task']> = (on) =>
  onData(on, (house) => takenIn(house, ...on.input));
export const tryCondition: Doing<(typeof TRY_CONDITION)['task']> = (on) =>
  onData(on, (house) => tried(house.db, ...on.input));

/**
 * Does work on the data with a connection of its own; what it made known is told by whoever asked
 * for it.
 */
async function onData<T>({ data, now, gate }: OnData<unknown>, work: (house: House) => T): Promise<Apart<T>> {
  // Whatever only reads can’t write, by mistake neither.
  const db = connect(resolve(data), BUSY_TIMEOUT, { readonly: gate === null });
  const log = pino({ level: 'silent' });
  const changed: string[] = [];
  const live = { changed: (ids: Iterable<string>) => void changed.push(...ids) };
  const wakeOutbox = (): void => undefined;
  const house = { db, clock: { now: () => now }, live, log, troubles: new Troubles(log), wakeOutbox };
  try {
    if (gate) {
      const answer = new Promise((told) => gate.once('message', told));
      gate.postMessage('may I write?');
      await answer;
    }
    // A thread has neither settings nor streams: commands that can run in one use none of them.
    return { state: 'done', value: work(house as unknown as House), changed };
  } catch (error) {
    if (error instanceof Problem) {
      const { status, type, title, detail, problems, retryAfter } = error;
      return { state: 'refused', problem: { status, type, title, detail, problems, retryAfter } };
    }
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    return {
      state: 'stumbled',
      code,
      message: error instanceof Error ? (error.stack ?? error.message) : String(error),
    };
  } finally {
    db.$client.close();
  }
}
