import { useDeferredValue, useState } from 'react';
import { FindWho } from '../fields/FindWho.tsx';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

/** A colleague, found by part of a name: by id and name. */
export default function FindColleague({
  label,
  choose,
}: {
  label: string;
  choose: (chosen: readonly [id: string, name: string]) => void;
}) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = frontDeskApi.useColleaguesQuery({ query: { find: looking } });
  return (
    <FindWho
      id="find-colleague"
      label={label}
      placeholder={say('desk:findColleague')}
      none={say('desk:noColleague')}
      people={(data?.people ?? []).map(({ email, ...person }) => ({ ...person, detail: email }))}
      find={setFind}
      choose={(whom, name) => {
        if (whom && 'person' in whom) choose([whom.person, name]);
      }}
    />
  );
}
