import type { AnswerOf } from '@tolvek/contract';
import { useEffect } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { workshopApi } from './endpoints.ts';

/** How often is asked how far it has come, ms. */
const A_LOOK = 700;

/** Requests that are being computed anew: how many of them, and a way to stop. It goes on without this page. */
export function ComputingAnew({ job, ended }: { job: string; ended: () => void }) {
  const { data } = workshopApi.useJobQuery({ id: job }, { pollingInterval: A_LOOK });
  const [stop, { isLoading }] = workshopApi.useStopJobMutation();
  const isOver = data !== undefined && data.state !== 'waiting' && data.state !== 'running';
  useEffect(() => {
    if (!isOver || !data) return;
    toast(outcome(data));
    ended();
  }, [isOver, data, ended]);
  return (
    <span className="flex items-center gap-3" role="status">
      <span className="text-[13.5px] text-soft">
        Computing anew: {data?.looked ?? 0} of {data?.of ?? '…'} requests
      </span>
      <progress className="h-1.5 w-24" max={data?.of ?? 1} value={data?.looked ?? 0} aria-label="How far it has come" />
      <Button disabled={isLoading} onClick={() => void stop({ id: job })}>
        Stop
      </Button>
    </span>
  );
}

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
