import type { House } from './house.ts';
import { patiently } from './patience.ts';
import { Problem } from './problem.ts';
import type { Work } from './worker.ts';
import { inWorker } from './workers.ts';

/** Work on the data folder, at a moment of the house’s clock. */
export interface OnData<Input> {
  readonly data: string;
  readonly now: number;
  readonly input: Input;
}

/** What became of work in a thread: errors don’t travel between threads as they are. */
export type Apart<T> =
  | { readonly state: 'done'; readonly value: T; readonly changed: readonly string[] }
  | {
      readonly state: 'refused';
      readonly problem: Pick<Problem, 'status' | 'type' | 'title' | 'detail' | 'problems' | 'retryAfter'>;
    }
  | { readonly state: 'stumbled'; readonly code: string; readonly message: string };

type OnDataWork = 'takeInRows' | 'tryCondition';
type InputOf<N extends OnDataWork> = Parameters<Work[N]>[0] extends OnData<infer Input> ? Input : never;
type ValueOf<N extends OnDataWork> = ReturnType<Work[N]> extends Apart<infer Value> ? Value : never;

/** Does work on the data off the thread that answers, and tells what it changed. */
export function apart<N extends OnDataWork>(house: House, name: N, input: InputOf<N>): Promise<ValueOf<N>> {
  return patiently(house, async () => {
    const asked = { data: house.config.data, now: house.clock.now(), input } as unknown as Parameters<Work[N]>[0];
    const work = () => inWorker(name, asked) as Promise<Apart<ValueOf<N>>>;
    const result = await (name === 'takeInRows' ? house.gate.holding(work) : work());
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
