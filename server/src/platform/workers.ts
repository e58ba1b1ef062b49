import type { MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';

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
type Thread = 'thinking' | 'data';

/** Heavy work: what the file of the threads calls it, and which of them does it. */
export interface Task<Input, Output> {
  readonly name: string;
  readonly thread: Thread;
  /** What it takes and gives: plain data, as it is copied. Never called here. */
  readonly does?: (input: Input) => Output;
}

/** Names heavy work with what it takes and gives. */
export const task = <Input, Output>(name: string, thread: Thread): Task<Input, Output> => ({ name, thread });

/** What the file of the threads has to have for a task. */
export type Doing<T> = T extends Task<infer Input, infer Output> ? (input: Input) => Output | Promise<Output> : never;

/** Nothing: the thread has begun. */
const READY = task<null, true>('ready', 'thinking');
export type Ready = Doing<typeof READY>;

let file: URL | null = null;
const threads = new Map<Thread, Piscina>();

/** Says which file threads run: it knows all that can be done, as this place does not. */
export function threadsRun(which: URL): void {
  file = which;
}

/** A thread, started when its first work comes. An idle one doesn’t keep the process alive. */
function threadFor(which: Thread): Piscina {
  let thread = threads.get(which);
  if (!thread) {
    if (!file) throw new Error('Nobody said which file threads run.');
    thread = new Piscina({
      filename: file.href,
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
export const inWorker = <Input, Output>(
  { name, thread }: Task<Input, Output>,
  input: Input,
  given: readonly MessagePort[] = [],
): Promise<Output> =>
  threadFor(thread).run(input, {
    name,
    signal: AbortSignal.timeout(LONGEST),
    transferList: [...given],
  }) as Promise<Output>;

/** Makes the threads ready before they are needed. */
export const warmWorkers = (): Promise<unknown> =>
  Promise.all((['thinking', 'data'] as const).map((which) => inWorker({ ...READY, thread: which }, null)));
