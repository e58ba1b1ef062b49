import type { AnswerOf } from '@tolvek/contract';
import { useEffect, useState } from 'react';
import { say } from '../wire/words.ts';

type Times = Pick<AnswerOf<'door'>, 'now' | 'closes' | 'finishing' | 'finishBy' | 'places'>;

/** The longest that a browser waits. */
const LONGEST = 2 ** 31 - 1;

/** Until when a form can be sent, told anew at the moment when it closes; and how often, where that is shown. */
export function HowLong({ door }: { door: Times }) {
  const { closes, finishing, finishBy, places } = door;
  // By the clock of the desk, whatever that of the device says.
  const [ahead] = useState(() => Date.parse(door.now) - Date.now());
  const [now, setNow] = useState(() => Date.parse(door.now));
  const closing = closes === null ? null : Date.parse(closes);
  useEffect(() => {
    if (closing === null || now >= closing) return;
    const waiting = setTimeout(() => setNow(Date.now() + ahead), Math.min(LONGEST, closing - now));
    return () => clearTimeout(waiting);
  }, [closing, now, ahead]);
  const isOver = finishBy !== null || (closing !== null && now >= closing);
  const until = finishBy ?? (closing === null ? null : new Date(closing + finishing * 60_000).toISOString());
  if (isOver && until !== null)
    return (
      <p role="status" className="mt-4 border-l-[3px] border-brass-mark bg-brass-wash px-4 py-2.5">
        {finishBy !== null || finishing > 0 ? say('desk:finishUntil', { until }) : say('desk:closedMeanwhile')}
      </p>
    );
  if (closes === null && places === null) return null;
  return (
    <p className="mt-3 text-soft">
      {closes === null ? '' : say('desk:openUntil', { until: closes })}{' '}
      {places === null ? '' : say('desk:placesLeft', { count: places })}
    </p>
  );
}
