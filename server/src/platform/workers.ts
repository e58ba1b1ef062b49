import { RECIPES } from '@tolvek/core/form';
import { Piscina } from 'piscina';
import type { Work } from './worker.ts';

/** Threads for heavy computation: no more than two, as each holds a copy of core (35 to 50 MB). */
const THREADS = 2;
/**
 * How long a piece of work may take before its thread is given up, ms; budgets end all of it long
 * before.
 */
const LONGEST = 60_000;

let pool: Piscina | undefined;

/** The threads, started when the first heavy work comes. Idle ones don’t keep the process alive. */
function threads(): Piscina {
  if (pool) return pool;
  pool = new Piscina({
    filename: new URL('./worker.mjs', import.meta.url).href,
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: 60_000,
    // Of how the process was started, and of its environment, a thread needs nothing.
    execArgv: [],
    env: {},
  });
  // Whoever waits is told by their own piece of work; an idle thread that ends is no matter.
  pool.on('error', () => undefined);
  return pool;
}

/** Computes off the thread that answers. What goes in and comes out is copied. */
export const inWorker = <N extends keyof Work>(name: N, input: Parameters<Work[N]>[0]): Promise<ReturnType<Work[N]>> =>
  threads().run(input, { name, signal: AbortSignal.timeout(LONGEST) }) as Promise<ReturnType<Work[N]>>;

/** Makes the threads ready before they are needed. */
export function warmWorkers(): Promise<unknown> {
  const [blank] = RECIPES;
  if (!blank) return Promise.resolve();
  const design = blank.make({ title: '', team: '', approvers: '', calendar: '' });
  const around = { groups: new Set<string>(), outside: false, vocabularies: [], registers: [] };
  return inWorker('findings', { design, around });
}
