import type { AnswerOf } from '@tolvek/contract';
import { useEffect, useRef } from 'react';
import { useDispatch } from 'react-redux';
import { Button } from '../ui/Button.tsx';
import { api } from '../wire/api.ts';
import { say } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';

/** How often is asked how far it has come, ms. */
const A_LOOK = 700;

interface LongWorkProps {
  readonly job: string;
  /** What is being done: “Computing anew”. */
  readonly says: string;
  /** What it is done to: “requests”. */
  readonly of: string;
  readonly ended: (job: AnswerOf<'job'>) => void;
}

/** Long work that goes on: how far it has come, and a way to stop it. It goes on without this page. */
export function LongWork({ job, says, of, ended }: LongWorkProps) {
  const { data } = workshopApi.useJobQuery({ id: job }, { pollingInterval: A_LOOK });
  const [stop, { isLoading }] = workshopApi.useStopJobMutation();
  const dispatch = useDispatch();
  const tell = useRef(ended);
  tell.current = ended;
  const isOver = data !== undefined && data.state !== 'waiting' && data.state !== 'running';
  useEffect(() => {
    if (!isOver || !data) return;
    dispatch(api.util.invalidateTags(['ledger', 'sheet', 'forms']));
    tell.current(data);
  }, [isOver, data, dispatch]);
  return (
    <span className="flex flex-wrap items-center gap-3" role="status">
      <span className="text-[13.5px] text-soft">
        {say('workshop:progressOf', { what: says, looked: data?.looked ?? 0, of: data?.of ?? '…', things: of })}
      </span>
      <progress
        className="h-1.5 w-24"
        max={data?.of ?? 1}
        value={data?.looked ?? 0}
        aria-label={say('workshop:progress')}
      />
      <Button disabled={isLoading} onClick={() => void stop({ id: job })}>
        {say('workshop:stop')}
      </Button>
    </span>
  );
}
