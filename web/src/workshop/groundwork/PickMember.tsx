import { useDeferredValue, useState } from 'react';
import Combobox from '../../fields/Combobox.tsx';
import { portraitOf } from '../../ui/Face.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

type Member = { readonly person: string } | { readonly group: string };

interface PickProps {
  /** Ids and keys of who is inside already. */
  readonly inside: readonly string[];
  readonly group: string;
  readonly choose: (member: Member | null, name: string) => void;
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
  const [words, setWords] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data: people } = groundApi.usePeopleQuery({ query: { kind, find: looking, state: 'active' } });
  const { data: all } = groundApi.useGroupsQuery();
  const groups = (onlyPeople ? [] : (all?.groups ?? []))
    .filter(({ key, retired }) => !retired && key !== group && !inside.includes(key))
    .filter(({ name }) => name.toLowerCase().includes(looking.toLowerCase()))
    .slice(0, 8);
  const offered = [
    ...groups.map(({ key, name, members }) => ({
      ...{ key: `group ${key}`, label: name, detail: say('ground:groupOf', { count: members }) },
    })),
    ...(people?.people ?? [])
      .filter(({ id }) => !inside.includes(id))
      .slice(0, 20)
      .map(({ id, name, email, portrait }) => ({
        ...{ key: `person ${id}`, label: name, detail: email, face: portraitOf(id, portrait) },
      })),
  ];
  return (
    <>
      <label id="entry-member-label" htmlFor="entry-member" className="block text-[13px] text-soft">
        {label}
      </label>
      <Combobox
        id="entry-member"
        describedBy={undefined}
        invalid={false}
        disabled={false}
        placeholder={say('ground:findMember')}
        words={words}
        offered={offered}
        note={offered.length === 0 ? say('ground:nobodyFound') : ''}
        find={setFind}
        choose={(item) => {
          const [what = '', ...rest] = item.key.split(' ');
          const id = rest.join(' ');
          setWords(item.label);
          choose(what === 'group' ? { group: id } : { person: id }, item.label);
        }}
        leave={(left) => {
          if (left === words) return;
          setWords(left);
          choose(null, '');
        }}
      />
    </>
  );
}
