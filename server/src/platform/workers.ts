import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import type { Work } from './worker.ts';

/** Threads for heavy computation: no more than two, as each holds a copy of core (35 to 50 MB). */
const THREADS = 2;

let pool: Piscina | undefined;

/** The threads, started when the first heavy work comes. Idle ones don’t keep the process alive. */
function threads(): Piscina {
  const loader = join(dirname(createRequire(import.meta.url).resolve('tsx/package.json')), 'dist', 'loader.mjs');
  pool ??= new Piscina({
    filename: new URL('./worker.ts', import.meta.url).href,
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: 60_000,
    execArgv: ['--import', pathToFileURL(loader).href],
    // Of the environment, a thread needs nothing.
    env: {},
  });
  return pool;
}

/** Computes off the thread that answers. What goes in and comes out is copied. */
export const inWorker = <N extends keyof Work>(name: N, input: Parameters<Work[N]>[0]): Promise<ReturnType<Work[N]>> =>
  threads().run(input, { name }) as Promise<ReturnType<Work[N]>>;
