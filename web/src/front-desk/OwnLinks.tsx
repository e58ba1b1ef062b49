import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';

/** How many links lead to this page without signing in; whoever asked ends them. `isOneOfThem`: they came by one. */
export default function OwnLinks({
  links: { working, until, needsCode },
  isOneOfThem,
  end,
}: {
  links: AnswerOf<'follow'>['links'];
  isOneOfThem: boolean;
  end: () => Promise<unknown>;
}) {
  const [error, setError] = useState<unknown>(null);
  const [isDone, setDone] = useState(false);
  const press = (): void =>
    void end().then(
      () => setDone(true),
      (failed: unknown) => setError(failed),
    );
  if (working === 0 && !isDone && !error) return null;
  return (
    <section className="mt-8 text-[15px]">
      {isDone ? <p role="status">{say('desk:linksEnded')}</p> : null}
      {working > 0 && until !== null ? (
        <>
          <p className="text-soft">
            {say('desk:yourLinks', { count: working, until })}{' '}
            {say(needsCode ? 'desk:linksNeedCode' : 'desk:linksRead')}
          </p>
          {working > (isOneOfThem ? 1 : 0) ? (
            <p className="mt-2">
              <Button onClick={press}>{say(isOneOfThem ? 'desk:endOtherLinks' : 'desk:endMyLinks')}</Button>
            </p>
          ) : null}
        </>
      ) : null}
      {error ? <Trouble error={error} /> : null}
    </section>
  );
}
