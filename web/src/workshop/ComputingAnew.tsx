import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { LongWork } from './LongWork.tsx';

/** Requests that are being computed anew: how many of them, and a way to stop. */
export const ComputingAnew = ({ job, ended }: { job: string; ended: () => void }) => (
  <LongWork
    job={job}
    says="Computing anew"
    of="requests"
    ended={(done) => {
      toast(outcome(done));
      ended();
    }}
  />
);

function outcome({ state, changed }: AnswerOf<'job'>): string {
  const requests = `${changed} ${changed === 1 ? 'request was' : 'requests were'} computed anew`;
  switch (state) {
    case 'done':
      return changed === 0 ? 'No request changed by being computed anew.' : `${requests}.`;
    case 'stopped':
      return `Stopped. ${requests}; the others keep what they have.`;
    default:
      return `It could not be done to the end, and is written down. ${requests}; the others keep what they have.`;
  }
}
