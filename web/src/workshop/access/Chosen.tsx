import { conditionInWords, parseExpression, type Scope } from '@tolvek/core/expression';
import { CONTACT, RIGHTS, rightInWords, wordInWords, wordOf } from '@tolvek/core/people';
import { said } from '@tolvek/words';
import { useDeferredValue, useState } from 'react';
import { ConditionBuilder } from '../../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../../conditions/firstCondition.ts';
import { FindWho } from '../../fields/FindWho.tsx';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { GroupOnTheSpot } from '../groundwork/NewGroup.tsx';
import { RELATIONS } from './planEdits.ts';

interface ChosenProps {
  readonly id: string;
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  /** What people are called who are chosen, by their ids. */
  readonly people?: Readonly<Record<string, string>>;
  /** The names that conditions on profiles use; none where people are not told apart by them. */
  readonly profile?: Scope;
  /** Whether what somebody is to a request can be chosen. */
  readonly byRequest?: boolean;
  /** Whether what somebody may do can be chosen. */
  readonly byRight?: boolean;
  /** Whether groups alone can be chosen, that are there. */
  readonly onlyGroups?: boolean;
  readonly chosen: readonly string[];
  readonly toggle: (word: string) => void;
  /** Told what somebody is called who is chosen, by id. */
  readonly named?: ((id: string, name: string) => void) | undefined;
  /** What they are chosen for: the name of the box that adds one. */
  readonly label: string;
}

/** Groups, people, and what somebody is to a request: those that are chosen, each with a way out, and a box that adds one. */
export function Chosen({
  id,
  groups,
  people = {},
  profile,
  byRequest = true,
  byRight = false,
  onlyGroups = false,
  chosen,
  toggle,
  named,
  label,
}: ChosenProps) {
  const [isFinding, setFinding] = useState(false);
  const [condition, setCondition] = useState<string | null>(null);
  const [names, setNames] = useState<Readonly<Record<string, string>>>({});
  const nameOf = (word: string): string => {
    const same = wordInWords(word);
    if (same) return told(same);
    if (word.startsWith('?') && profile) {
      const parsed = parseExpression(word.slice(1));
      const condition = parsed.ok ? conditionInWords(parsed.value, profile) : word.slice(1);
      return told(said('people:whoMeets', { condition }));
    }
    if (word.startsWith('@')) return people[word.slice(1)] ?? names[word.slice(1)] ?? '…';
    return groups.find((group) => group.key === word)?.name ?? word;
  };
  return (
    <>
      <span className="mt-1 flex flex-wrap items-center gap-2">
        {chosen.map((word) => {
          const name = nameOf(word);
          return (
            <span
              key={word}
              className="flex items-center gap-1.5 border border-rule-strong bg-paper py-0.5 pr-1 pl-2.5"
            >
              {name}
              <button
                type="button"
                className="px-1 text-soft hover:text-brick"
                aria-label={say('accessPlan:takeOut', { name })}
                onClick={() => toggle(word)}
              >
                ×
              </button>
            </span>
          );
        })}
        <select
          className="input w-auto"
          aria-label={label}
          value=""
          onChange={(event) => {
            if (event.target.value === 'person') setFinding(true);
            else if (event.target.value === 'profile' && profile) setCondition(firstCondition(profile));
            else if (event.target.value !== '') toggle(event.target.value);
          }}
        >
          <option value="">{say('accessPlan:addSomebody')}</option>
          {onlyGroups || !byRequest ? null : (
            <optgroup label={say('accessPlan:byRequest')}>
              {RELATIONS.filter((word) => !chosen.includes(word)).map((word) => (
                <option key={word} value={word}>
                  {nameOf(word)}
                </option>
              ))}
            </optgroup>
          )}
          {onlyGroups || !byRequest || chosen.includes(CONTACT) ? null : (
            <option value={CONTACT}>{say('accessPlan:fromOutside')}</option>
          )}
          {profile && profile.names.length > 0 ? <option value="profile">{say('accessPlan:byProfile')}</option> : null}
          <optgroup label={say('accessPlan:groups')}>
            {groups
              .filter(({ key }) => !chosen.includes(key))
              .map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
          </optgroup>
          {onlyGroups ? null : <option value="person">{say('accessPlan:onePerson')}</option>}
          {byRight ? (
            <optgroup label={say('accessPlan:byRight')}>
              {RIGHTS.filter((right) => !chosen.includes(`+${right}`)).map((right) => (
                <option key={right} value={`+${right}`}>
                  {told(rightInWords(right))}
                </option>
              ))}
            </optgroup>
          ) : null}
        </select>
        {onlyGroups ? null : <GroupOnTheSpot isTeam={false} made={toggle} />}
      </span>
      {chosen.includes('~follower') ? (
        <span className="mt-1 block text-[13px] text-soft">{say('accessPlan:anybodyFollows')}</span>
      ) : null}
      {condition !== null && profile ? (
        <fieldset className="mt-2 border-l-[3px] border-brass bg-paper px-3 py-2">
          <legend className="sr-only">{say('accessPlan:profileIs')}</legend>
          <ConditionBuilder condition={condition} scope={profile} set={setCondition} />
          <span className="mt-2 flex items-center gap-4">
            <Button
              onClick={() => {
                if (!chosen.includes(`?${condition}`)) toggle(`?${condition}`);
                setCondition(null);
              }}
            >
              {say('accessPlan:profileAdd')}
            </Button>
            <button type="button" className="text-green underline" onClick={() => setCondition(null)}>
              {say('common:cancel')}
            </button>
          </span>
        </fieldset>
      ) : null}
      {isFinding ? (
        <span className="mt-2 block max-w-96">
          <FindPerson
            id={id}
            inside={chosen}
            choose={(person, name) => {
              setNames((known) => ({ ...known, [person]: name }));
              named?.(person, name);
              toggle(wordOf({ person }));
              setFinding(false);
            }}
          />
        </span>
      ) : null}
    </>
  );
}

interface FindPersonProps {
  readonly id: string;
  readonly inside: readonly string[];
  readonly choose: (id: string, name: string) => void;
}

/** Staff and contacts, found by part of a name. */
function FindPerson({ id, inside, choose }: FindPersonProps) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = workshopApi.useFindPeopleQuery({ query: { find: looking } });
  return (
    <FindWho
      id={`${id}-person`}
      label={say('accessPlan:whoIsIt')}
      placeholder={say('accessPlan:findPerson')}
      none={say('accessPlan:noPerson')}
      people={(data?.people ?? [])
        .filter((person) => !inside.includes(`@${person.id}`))
        .map(({ email, outside, ...person }) => ({
          ...person,
          detail: outside ? say('accessPlan:outsideAt', { email }) : email,
        }))}
      find={setFind}
      choose={(whom, name) => {
        if (whom && 'person' in whom) choose(whom.person, name);
      }}
    />
  );
}

/** Somebody by id and name. */
export type One = readonly [id: string, name: string];

interface OnePersonProps {
  readonly id: string;
  readonly person: One | null;
  readonly set: (person: One | null) => void;
}

/** One person: found by part of a name, or the one who is chosen, with a way out. */
export const OnePerson = ({ id, person, set }: OnePersonProps) =>
  person ? (
    <span className="flex items-center gap-1.5 border border-rule-strong bg-sheet py-1.5 pr-1 pl-2.5">
      {person[1]}
      <button
        type="button"
        className="px-1 text-soft hover:text-brick"
        aria-label={say('accessPlan:takeOut', { name: person[1] })}
        onClick={() => set(null)}
      >
        ×
      </button>
    </span>
  ) : (
    <span className="w-64">
      <FindPerson id={id} inside={[]} choose={(which, name) => set([which, name])} />
    </span>
  );
