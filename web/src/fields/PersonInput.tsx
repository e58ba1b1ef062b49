import { calledApart } from '@tolvek/core/people';
import type { KnownPerson } from '@tolvek/core/register';
import { say } from '../wire/words.ts';
import { Chosen } from './Chosen.tsx';
import { type InputProps, typed, useAroundFields } from './input.ts';

const among = (people: readonly KnownPerson[], from: readonly string[]): readonly KnownPerson[] =>
  people.filter((person) => from.length === 0 || person.groups.some((group) => from.includes(group)));

/** One person of those who can be picked, by name. */
export function PersonInput(props: InputProps<'person'>) {
  const { people } = useAroundFields();
  const offered = among(people, props.type.from);
  const value = typed(props.value);
  return (
    <select
      id={props.id}
      className="input"
      disabled={props.disabled}
      aria-describedby={props.describedBy}
      aria-invalid={props.invalid}
      value={value}
      onBlur={props.onBlur}
      onChange={(event) => props.onChange(event.target.value)}
    >
      <option value="">{say('desk:choosePerson')}</option>
      {value !== '' && !offered.some((person) => person.id === value) ? (
        <option value={value}>{say('desk:personNotOffered')}</option>
      ) : null}
      {offered.map((person) => (
        <option key={person.id} value={person.id}>
          {calledApart(person)}
        </option>
      ))}
    </select>
  );
}

/** Several people: those chosen as a list, one more from a picker. */
export function PeopleInput(props: InputProps<'people'>) {
  const { people } = useAroundFields();
  const chosen = Array.isArray(props.value) ? (props.value as readonly string[]) : [];
  const free = among(people, props.type.from).filter((person) => !chosen.includes(person.id));
  const nameOf = (id: string): string => {
    const person = people.find((each) => each.id === id);
    return person ? calledApart(person) : say('desk:personNotOffered');
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: the question above it is its label, which a fieldset’s legend can’t be here
    <div role="group" aria-labelledby={`${props.id}-label`} aria-describedby={props.describedBy}>
      <Chosen
        items={chosen.map((id) => ({ key: id, label: nameOf(id) }))}
        disabled={props.disabled}
        drop={(id) => props.onChange(chosen.filter((each) => each !== id))}
      />
      <select
        id={props.id}
        aria-labelledby={`${props.id}-label`}
        className="input"
        disabled={props.disabled || free.length === 0}
        aria-invalid={props.invalid}
        value=""
        onBlur={props.onBlur}
        onChange={(event) => props.onChange([...chosen, event.target.value])}
      >
        <option value="">{chosen.length === 0 ? say('desk:choosePerson') : say('desk:addPerson')}</option>
        {free.map((person) => (
          <option key={person.id} value={person.id}>
            {calledApart(person)}
          </option>
        ))}
      </select>
    </div>
  );
}
