import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { confirmed, isGone, type Waiting, waiting } from './waiting.ts';

/** What was sent from this device and still waits for its address to be confirmed; nothing where nothing waits. */
export function NotConfirmed() {
  const [left] = useState(waiting);
  const [told, setTold] = useState<Readonly<Record<string, boolean>>>({});
  if (left.length === 0) return null;
  const waits = left.some(({ token }) => told[token] === true);
  return (
    <section aria-label={say('desk:waitsForYou')}>
      {waits ? <h2 className="section-head mt-7">{say('desk:waitsForYou')}</h2> : null}
      <ul>
        {left.map((each) => (
          <Left
            key={each.token}
            left={each}
            tell={(still) => setTold((before) => ({ ...before, [each.token]: still }))}
          />
        ))}
      </ul>
    </section>
  );
}

function Left({ left: { token }, tell }: { left: Waiting; tell: (waits: boolean) => void }) {
  const { data, error } = frontDeskApi.useSentStateQuery({ token });
  const waits = data?.state === 'to-confirm';
  const isOver = data?.state === 'arrived' || isGone(error);
  // biome-ignore lint/correctness/useExhaustiveDependencies: told when it is known, not at each rendering
  useEffect(() => {
    if (isOver) confirmed(token);
    tell(waits);
  }, [isOver, waits, token]);
  return waits ? (
    <li className="flex flex-wrap items-baseline justify-between gap-x-3 gap-y-1 border-b border-rule py-2.5">
      <span>{say('desk:waitingForm', { form: data.form })}</span>
      <Link to={`/sent/${token}`}>{say('desk:showStep')}</Link>
    </li>
  ) : null;
}
