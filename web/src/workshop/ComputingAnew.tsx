import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { say } from '../wire/words.ts';
import { LongWork } from './LongWork.tsx';

/** Long work that a release began: requests are computed anew, or are given its deadlines. */
export interface Work {
  readonly job: string;
  readonly does: 'computes' | 'plans';
}

/** Requests that are being computed anew, or given other deadlines: how many of them, and a way to stop. */
export const ComputingAnew = ({ job, does, ended }: Work & { ended: () => void }) => (
  <LongWork
    job={job}
    says={say(does === 'computes' ? 'workshop:computing' : 'workshop:planning')}
    of={say('workshop:requestsWord')}
    ended={(done) => {
      toast(outcome(does, done));
      ended();
    }}
  />
);

function outcome(does: Work['does'], { state, changed }: AnswerOf<'job'>): string {
  const isComputed = does === 'computes';
  switch (state) {
    case 'done':
      if (changed === 0) return say(isComputed ? 'workshop:computedNone' : 'workshop:plannedNone');
      return say(isComputed ? 'workshop:recomputed' : 'workshop:planned', { count: changed });
    case 'stopped':
      return say(isComputed ? 'workshop:computedStopped' : 'workshop:plannedStopped', { count: changed });
    default:
      return say(isComputed ? 'workshop:computedFailed' : 'workshop:plannedFailed', { count: changed });
  }
}
