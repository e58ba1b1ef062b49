import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';

/** The links that lead to this page without signing in: whoever asked ends them, or has a new one sent. `isOneOfThem`: they came by one. */
export default function OwnLinks({
  links: { working, until, needsCode, each, mayRenew },
  isOneOfThem,
  end,
  renew,
}: {
  links: AnswerOf<'follow'>['links'];
  isOneOfThem: boolean;
  /** Ends the links of these ids; null: all, but for the one they came by. */
  end: (only: readonly string[] | null) => Promise<unknown>;
  renew: () => Promise<unknown>;
}) {
  const [error, setError] = useState<unknown>(null);
  const [done, setDone] = useState<'ended' | 'sent' | null>(null);
  const press = (does: Promise<unknown>, is: 'ended' | 'sent'): void => {
    setError(null);
    void does.then(
      () => setDone(is),
      (failed: unknown) => setError(failed),
    );
  };
  if (working === 0 && !mayRenew && !done && !error) return null;
  return (
    <section className="mt-8 text-[15px]">
      {done ? <p role="status">{say(done === 'ended' ? 'desk:linksEnded' : 'desk:newLinkSent')}</p> : null}
      {working > 0 && until !== null ? (
        <details>
          <summary className="text-soft">
            {say('desk:yourLinks', { count: working, until })}{' '}
            {say(needsCode ? 'desk:linksNeedCode' : 'desk:linksRead')}
          </summary>
          <ul>
            {each.map((link) => (
              <li
                key={link.id}
                className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule py-2"
              >
                <span>
                  {link.made === null
                    ? say('desk:linkUntil', { until: link.until })
                    : say('desk:linkFrom', { made: link.made, until: link.until })}
                  {link.here ? <span className="text-soft"> · {say('desk:linkHere')}</span> : null}
                </span>
                {link.here ? null : (
                  <button type="button" className="min-h-9 underline" onClick={() => press(end([link.id]), 'ended')}>
                    {say('desk:endThisLink')}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      <p className="mt-2 flex flex-wrap gap-2">
        {working > (isOneOfThem ? 1 : 0) ? (
          <Button onClick={() => press(end(null), 'ended')}>
            {say(isOneOfThem ? 'desk:endOtherLinks' : 'desk:endMyLinks')}
          </Button>
        ) : null}
        {mayRenew && done !== 'sent' ? (
          <Button onClick={() => press(renew(), 'sent')}>
            {say(isOneOfThem ? 'desk:newLinkForThis' : 'desk:newLink')}
          </Button>
        ) : null}
      </p>
      {error ? <Trouble error={error} /> : null}
    </section>
  );
}
