import { lazy, Suspense, useState } from 'react';
import { say } from '../wire/words.ts';

// Most ask for themselves: what finds somebody comes when it is wanted.
const FindColleague = lazy(() => import('./FindColleague.tsx'));

/** On whose behalf somebody asks, by id and name. */
export type OnBehalf = readonly [id: string, name: string];

interface ForSomebodyProps {
  readonly behalf: OnBehalf | null;
  readonly set: (behalf: OnBehalf | null) => void;
}

/** For whom somebody of the staff asks: for themselves, unless they choose a colleague. */
export function ForSomebody({ behalf, set }: ForSomebodyProps) {
  const [isOpen, setOpen] = useState(false);
  if (behalf)
    return (
      <p className="mt-8">
        {say('desk:youAskFor', { name: behalf[1] })}{' '}
        <button type="button" className="underline" onClick={() => set(null)}>
          {say('desk:askForMyself')}
        </button>
      </p>
    );
  return (
    <div className="mt-8">
      {isOpen ? (
        <Suspense>
          <div className="max-w-96">
            <FindColleague
              label={say('desk:askForWhom')}
              choose={(chosen) => {
                set(chosen);
                setOpen(false);
              }}
            />
          </div>
        </Suspense>
      ) : (
        <button type="button" className="text-[14px] text-soft underline" onClick={() => setOpen(true)}>
          {say('desk:askForSomebody')}
        </button>
      )}
    </div>
  );
}
