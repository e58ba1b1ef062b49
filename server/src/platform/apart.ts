import { MessageChannel, type MessagePort } from 'node:worker_threads';
import type { House } from './house.ts';
import { patiently } from './patience.ts';
import { Problem } from './problem.ts';
import { inWorker, type Task, task } from './workers.ts';

/** Work on the data folder, at a moment of the house’s clock. */
export interface OnData<Input> {
  readonly data: string;
  readonly now: number;
  readonly input: Input;
  /** Where the thread asks to write, and is told when it may; null for work that only reads. */
  readonly gate: MessagePort | null;
}

/** What became of work in a thread: errors don’t travel between threads as they are. */
export type Apart<T> =
  | { readonly state: 'done'; readonly value: T; readonly changed: readonly string[] }
  | {
      readonly state: 'refused';
      readonly problem: Pick<Problem, 'status' | 'type' | 'title' | 'detail' | 'problems' | 'retryAfter'>;
    }
  | { readonly state: 'stumbled'; readonly code: string; readonly message: string };

/** Work on the data: the thread is told where it lies, and asks before it writes. */
export interface DataTask<Input, Value> {
  readonly task: Task<OnData<Input>, Apart<Value>>;
  readonly writes: boolean;
}

/** Names work on the data with what it takes and gives. */
export const dataTask = <Input, Value>(name: string, kind: 'reads' | 'writes'): DataTask<Input, Value> => ({
  task: task<OnData<Input>, Apart<Value>>(name, 'data'),
  writes: kind === 'writes',
});

/** Does work on the data off the thread that answers, and tells what it changed. */
export function apart<Input, Value>(
  house: House,
  { task: which, writes }: DataTask<Input, Value>,
  input: Input,
): Promise<Value> {
  return patiently(house, async () => {
    const gate = writes ? new MessageChannel() : null;
    const asked = { data: house.config.data, now: house.clock.now(), input, gate: gate?.port2 ?? null };
    const work = inWorker(which, asked, gate ? [gate.port2] : []);
    // Closed from when the thread is about to write, not while it waits for its turn in the queue.
    gate?.port1.once('message', () => {
      const held = house.gate.holding(() => {
        gate.port1.postMessage('yours');
        return work;
      });
      // What becomes of the work is told below.
      held.catch(() => undefined);
    });
    const result = await work.finally(() => gate?.port1.close());
    switch (result.state) {
      case 'done':
        house.live.changed(result.changed);
        house.wakeOutbox();
        return result.value;
      case 'refused': {
        const { status, type, title, detail, problems, retryAfter } = result.problem;
        throw new Problem(status, type, title, detail, problems, retryAfter);
      }
      case 'stumbled':
        throw Object.assign(new Error(result.message), { code: result.code });
    }
  });
}
