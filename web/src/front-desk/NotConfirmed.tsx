import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { confirmed, isGone, waiting } from './waiting.ts';

/** What was sent from this device and still waits for its address to be confirmed; nothing where nothing waits. */
export function NotConfirmed() {
  const [left] = useState(waiting);
  return (
    <section aria-label={say('desk:waitsForYou')} className="hidden has-[li]:block">
      <h2 className="section-head mt-7">{say('desk:waitsForYou')}</h2>
      <ul>
        {left.map(({ token }) => (
          <Left key={token} token={token} />
        ))}
      </ul>
    </section>
  );
}

function Left({ token }: { token: string }) {
  const { data, error } = frontDeskApi.useSentStateQuery({ token });
  const isOver = data?.state === 'arrived' || isGone(error);
  useEffect(() => {
    if (isOver) confirmed(token);
  }, [isOver, token]);
  return data?.state === 'to-confirm' ? (
    <li className="flex flex-wrap items-baseline justify-between gap-x-3 gap-y-1 border-b border-rule py-2.5">
      <span>{say('desk:waitingForm', { form: data.form })}</span>
      <Link to={`/sent/${token}`}>{say('desk:showStep')}</Link>
    </li>
  ) : null;
}
