import { useState } from 'react';
import { portraitOf } from '../ui/Face.tsx';
import Combobox from './Combobox.tsx';

/** A group or a person, as one is chosen. */
export type Who = { readonly person: string } | { readonly group: string };

interface FoundGroup {
  readonly key: string;
  readonly name: string;
  /** What tells that it is a group. */
  readonly detail: string;
}
interface FoundPerson {
  readonly id: string;
  readonly name: string;
  readonly portrait: string | null;
  /** What tells namesakes apart; empty where the name does. */
  readonly detail: string;
}

interface FindWhoProps {
  readonly id: string;
  readonly label: string;
  readonly placeholder: string;
  /** What is said where nobody is found. */
  readonly none: string;
  readonly groups?: readonly FoundGroup[];
  readonly people: readonly FoundPerson[];
  /** What was typed to find somebody. */
  readonly find: (words: string) => void;
  /** Null: what was chosen is chosen no more. */
  readonly choose: (who: Who | null, name: string) => void;
}

/** Groups and people in one line, found by typing; each with what tells them apart. */
export function FindWho({ id, label, placeholder, none, groups = [], people, find, choose }: FindWhoProps) {
  const [words, setWords] = useState('');
  const offered = [
    ...groups.map(({ key, name, detail }) => ({ key: `group ${key}`, label: name, detail })),
    ...people.map((each) => ({
      ...{ key: `person ${each.id}`, label: each.name, detail: each.detail },
      face: portraitOf(each.id, each.portrait),
    })),
  ];
  return (
    <>
      <label id={`${id}-label`} htmlFor={id} className="block text-[13px] text-soft">
        {label}
      </label>
      <Combobox
        id={id}
        describedBy={undefined}
        invalid={false}
        disabled={false}
        placeholder={placeholder}
        words={words}
        offered={offered}
        note={offered.length === 0 ? none : ''}
        find={find}
        choose={({ key, label: name }) => {
          const which = key.slice(key.indexOf(' ') + 1);
          setWords(name);
          choose(key.startsWith('group ') ? { group: which } : { person: which }, name);
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
