import { useDeferredValue, useState } from 'react';
import { FindWho, type Who } from '../../fields/FindWho.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

interface PickProps {
  /** Ids and keys of who is inside already. */
  readonly inside: readonly string[];
  readonly group: string;
  readonly choose: (member: Who | null, name: string) => void;
  /** Staff alone; all people where it is not said. */
  readonly kind?: 'staff';
  readonly onlyPeople?: boolean;
  readonly label?: string;
}

/** Directory groups, local groups, staff and contacts in one picker (needs D19); each with the address or what it is. */
export function PickMember({
  inside,
  group,
  choose,
  kind,
  onlyPeople = false,
  label = say('ground:whoComesIn'),
}: PickProps) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data: people } = groundApi.usePeopleQuery({ query: { kind, find: looking, state: 'active' } });
  const { data: all } = groundApi.useGroupsQuery();
  const groups = (onlyPeople ? [] : (all?.groups ?? []))
    .filter(({ key, retired }) => !retired && key !== group && !inside.includes(key))
    .filter(({ name }) => name.toLowerCase().includes(looking.toLowerCase()))
    .slice(0, 8);
  const found = (people?.people ?? []).filter(({ id }) => !inside.includes(id)).slice(0, 20);
  return (
    <FindWho
      id="entry-member"
      label={label}
      placeholder={say('ground:findMember')}
      none={say('ground:nobodyFound')}
      groups={groups.map(({ key, name, members }) => ({
        ...{ key, name, detail: say('ground:groupOf', { count: members }) },
      }))}
      people={found.map(({ id, name, email, portrait }) => ({ id, name, portrait, detail: email }))}
      find={setFind}
      choose={choose}
    />
  );
}
