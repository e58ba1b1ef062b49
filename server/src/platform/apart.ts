import type { House } from './house.ts';
import { patiently } from './patience.ts';
import { Problem } from './problem.ts';
import { mayHaveTold, type Read } from './reads.ts';
import { inWorker, type Task, task } from './workers.ts';

/** Work on the data folder, at a moment of the house’s clock. It reads; what is stored is stored by the thread that answers. */
export interface OnData<Input> {
  readonly data: string;
  readonly now: number;
  readonly input: Input;
}

/** What became of work in a thread: errors don’t travel between threads as they are. */
export type Apart<T> =
  | { readonly state: 'done'; readonly value: T; readonly reads: readonly Read[] }
  | {
      readonly state: 'refused';
      readonly problem: Pick<Problem, 'status' | 'type' | 'said' | 'problems' | 'retryAfter'>;
    }
  | { readonly state: 'stumbled'; readonly code: string; readonly message: string };

/** Work on the data, as it is named with what it takes and gives. */
export type DataTask<Input, Value> = Task<OnData<Input>, Apart<Value>>;

/** What a command takes besides the data and the moment, which the thread is told by itself. */
export type RestAfterNow<Command> = Command extends (on: never, now: number, ...rest: infer Taken) => unknown
  ? Taken
  : never;

export const dataTask = <Input, Value>(name: string): DataTask<Input, Value> => task(name, 'data');

/** Does work that reads the data off the thread that answers. */
export function apart<Input, Value>(house: House, which: DataTask<Input, Value>, input: Input): Promise<Value> {
  return patiently(house, async () => {
    const result = await inWorker(which, { data: house.config.data, now: house.clock.now(), input });
    switch (result.state) {
      case 'done':
        for (const read of result.reads) mayHaveTold(() => read);
        return result.value;
      case 'refused': {
        const { status, type, said, problems, retryAfter } = result.problem;
        throw new Problem(status, type, said, problems, retryAfter);
      }
      case 'stumbled':
        throw Object.assign(new Error(result.message), { code: result.code });
    }
  });
}
