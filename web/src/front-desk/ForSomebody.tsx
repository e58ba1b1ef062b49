import { lazy, Suspense, useDeferredValue, useState } from 'react';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

// Most ask for themselves: what finds somebody comes when it is wanted.
const FindWho = lazy(() => import('../fields/FindWho.tsx').then((module) => ({ default: module.FindWho })));

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
          <Find
            choose={(chosen) => {
              set(chosen);
              setOpen(false);
            }}
          />
        </Suspense>
      ) : (
        <button type="button" className="text-[14px] text-soft underline" onClick={() => setOpen(true)}>
          {say('desk:askForSomebody')}
        </button>
      )}
    </div>
  );
}

function Find({ choose }: { choose: (chosen: OnBehalf) => void }) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = frontDeskApi.useColleaguesQuery({ query: { find: looking } });
  return (
    <div className="max-w-96">
      <FindWho
        id="on-behalf"
        label={say('desk:askForWhom')}
        placeholder={say('desk:findColleague')}
        none={say('desk:noColleague')}
        people={(data?.people ?? []).map(({ email, ...person }) => ({ ...person, detail: email }))}
        find={setFind}
        choose={(whom, name) => {
          if (whom && 'person' in whom) choose([whom.person, name]);
        }}
      />
    </div>
  );
}
