import type { MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Work } from './worker.ts';

/**
 * How long a piece of work may take before its thread is given up, ms; budgets end all of it long
 * before.
 */
const LONGEST = 60_000;

/**
 * One thread thinks, and one works on the data, so that neither waits for the other; no more, as
 * each holds a copy of core (35 to 50 MB). Whoever thinks gives way to pages; whoever works on the
 * data may be waited for by writers, and does not.
 */
const THREAD_OF = {
  ready: 'thinking',
  findings: 'thinking',
  takeInRows: 'data',
  tryCondition: 'data',
} as const satisfies Record<keyof Work, string>;
type Thread = (typeof THREAD_OF)[keyof Work];

const threads = new Map<Thread, Piscina>();

/** A thread, started when its first work comes. An idle one doesn’t keep the process alive. */
function threadFor(which: Thread): Piscina {
  let thread = threads.get(which);
  if (!thread) {
    thread = new Piscina({
      filename: new URL('./worker.mjs', import.meta.url).href,
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
      workerData: { givesWay: which === 'thinking' },
      // Of how the process was started, and of its environment, a thread needs nothing.
      execArgv: [],
      env: {},
    });
    // Whoever waits is told by their own piece of work; an idle thread that ends is no matter.
    thread.on('error', () => undefined);
    threads.set(which, thread);
  }
  return thread;
}

/** Computes off the thread that answers. What goes in and comes out is copied; ports are given away. */
export const inWorker = <N extends keyof Work>(
  name: N,
  input: Parameters<Work[N]>[0],
  given: readonly MessagePort[] = [],
): Promise<Awaited<ReturnType<Work[N]>>> =>
  threadFor(THREAD_OF[name]).run(input, {
    name,
    signal: AbortSignal.timeout(LONGEST),
    transferList: [...given],
  }) as Promise<Awaited<ReturnType<Work[N]>>>;

/** Makes the threads ready before they are needed. */
export const warmWorkers = (): Promise<unknown> =>
  Promise.all([...new Set(Object.values(THREAD_OF))].map((which) => threadFor(which).run(null, { name: 'ready' })));
