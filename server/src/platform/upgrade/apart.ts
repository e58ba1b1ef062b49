import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import { CannotUpgrade } from './index.ts';

/** How long one try waits for another program that holds the database, ms. */
const PATIENCE = 1_000;

/**
 * Brings a data folder up to date off the thread that answers. `onStep`: told before each step.
 *
 * @throws CannotUpgrade as `upgrade` does.
 */
export async function upgradeApart(folder: string, onStep: (name: string) => void): Promise<void> {
  const thread = new Worker(new URL('./thread.mjs', import.meta.url), {
    workerData: { folder, patience: PATIENCE },
    execArgv: [],
    env: {},
  });
  thread.on('message', onStep);
  try {
    await once(thread, 'exit');
  } catch (error) {
    // Errors lose their class between threads, and nothing else.
    const { words } = error as Partial<CannotUpgrade>;
    if (words !== undefined) throw new CannotUpgrade(words);
    throw error;
  }
}
