import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

/** An email to oneself, and what became of it. `saved`: whether what is typed is in force. */
export function TestEmail({ saved }: { saved: boolean }) {
  const [sent, setSent] = useState<string | null>(null);
  const [send, { isLoading, error }] = groundApi.useSendTestEmailMutation();
  const { data } = groundApi.useTestEmailQuery(
    { id: sent ?? '' },
    { skip: sent === null, pollingInterval: 1_500, skipPollingIfUnfocused: true },
  );
  const start = async (): Promise<void> => {
    const answer = await send();
    if ('data' in answer && answer.data) setSent(answer.data.id);
  };
  return (
    <section className="mt-10">
      <h2 className="section-head">{say('ground:testEmail')}</h2>
      <p className="mt-2">{say('ground:testHint')}</p>
      <p className="mt-2">
        <Button id="desk test" disabled={isLoading || !saved} onClick={() => void start()}>
          {say('ground:sendTest')}
        </Button>
        {saved ? null : <span className="ml-3 text-soft">{say('ground:saveFirst')}</span>}
      </p>
      {error ? <Trouble error={error} /> : null}
      <p role="status" className="mt-2">
        {data?.state === 'waiting' ? say('ground:testWaiting', { to: data.to }) : null}
        {data?.state === 'sent' ? say('ground:testSent', { to: data.to }) : null}
      </p>
      {data?.state === 'failed' ? (
        <div role="alert" className="border-l-[3px] border-brick bg-brick-wash px-4 py-3">
          <p className="font-semibold">{say('ground:testFailed', { to: data.to })}</p>
          <p className="mt-0.5">{say('ground:testSaid', { error: data.error })}</p>
          <p className="mt-0.5">{say('ground:testFix')}</p>
        </div>
      ) : null}
    </section>
  );
}
