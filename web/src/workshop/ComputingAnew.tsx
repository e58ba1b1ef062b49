import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { say } from '../wire/words.ts';
import { LongWork } from './LongWork.tsx';

/** Requests that are being computed anew: how many of them, and a way to stop. */
export const ComputingAnew = ({ job, ended }: { job: string; ended: () => void }) => (
  <LongWork
    job={job}
    says={say('workshop:computing')}
    of={say('workshop:requestsWord')}
    ended={(done) => {
      toast(outcome(done));
      ended();
    }}
  />
);

function outcome({ state, changed }: AnswerOf<'job'>): string {
  switch (state) {
    case 'done':
      return changed === 0 ? say('workshop:computedNone') : say('workshop:recomputed', { count: changed });
    case 'stopped':
      return say('workshop:computedStopped', { count: changed });
    default:
      return say('workshop:computedFailed', { count: changed });
  }
}
