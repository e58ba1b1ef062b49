import { isHolder, type SeatPlan, seatOf, seatWord } from '@tolvek/core/approval';
import { wordOf } from '@tolvek/core/people';
import { useId, useState } from 'react';
import { useDispatch } from 'react-redux';
import { say } from '../wire/words.ts';
import { type One, OnePerson } from './access/Chosen.tsx';
import { useBinder } from './binder.ts';
import { workshopApi } from './endpoints.ts';

/** What takes a change of what is known of a form. */
type Dispatching = Parameters<ReturnType<typeof workshopApi.util.updateQueryData>>[0];

/** In the place of somebody: that they are still looked for. */
const FIND = ' find';

interface SeatOfProps {
  readonly label: string;
  readonly seat: SeatPlan;
  /** The same group stands before it. */
  readonly isAgain: boolean;
  readonly set: (seat: SeatPlan) => void;
}

/** Whom one is asked: any member of a group, one person, whoever an answer or the profile of the requester names, or who is on duty. */
export function SeatOf({ label, seat, isAgain, set }: SeatOfProps) {
  const { form, editing } = useBinder();
  const { fields } = editing.draft;
  const named = fields.filter(({ type }) => type.kind === 'person');
  const inProfile = form.profile.filter(({ type }) => type.kind === 'person');
  const words = [
    ...named.map(({ key }) => seatWord({ field: key })),
    ...inProfile.map(({ key }) => seatWord({ profile: key })),
    ...form.rosters.map(({ key }) => seatWord({ duty: key })),
  ];
  const word = seatWord(seat);
  const isLost = !isHolder(seat) && !words.includes(word);
  const { outsiders } = form;
  const [isFinding, setFinding] = useState(false);
  const id = useId();
  const dispatch = useDispatch<Dispatching>();
  /** Asks somebody who was found; the form knows them from then on by name. */
  const ask = ([key, name]: One): void => {
    const found = { key, label: name, groups: [] };
    if (![...form.people, ...outsiders].some((each) => each.key === key))
      dispatch(
        workshopApi.util.updateQueryData('form', { key: form.key }, (known) => ({
          ...known,
          outsiders: [...known.outsiders, found],
        })),
      );
    set({ person: key });
  };
  return (
    <>
      <select
        aria-label={label}
        className="input w-auto min-w-0"
        value={isFinding ? FIND : word}
        onChange={({ target: { value } }) => {
          setFinding(value === FIND);
          if (value !== FIND) set(seatOf(value));
        }}
      >
        <optgroup label={say('workshop:anyMember')}>
          {form.groups.map((group) => (
            <option key={group.key} value={group.key}>
              {group.name}, {say('workshop:members', { count: group.members })}
            </option>
          ))}
        </optgroup>
        {named.length > 0 ? (
          <optgroup label={say('workshop:namedByAnswer')}>
            {named.map((field) => (
              <option key={field.key} value={seatWord({ field: field.key })}>
                {field.label}
              </option>
            ))}
          </optgroup>
        ) : null}
        {inProfile.length > 0 ? (
          <optgroup label={say('workshop:namedByProfile')}>
            {inProfile.map((field) => (
              <option key={field.key} value={seatWord({ profile: field.key })}>
                {field.label}
              </option>
            ))}
          </optgroup>
        ) : null}
        {form.rosters.length > 0 ? (
          <optgroup label={say('workshop:onDutyOf')}>
            {form.rosters.map(({ key, name }) => (
              <option key={key} value={seatWord({ duty: key })}>
                {name}
              </option>
            ))}
          </optgroup>
        ) : null}
        <optgroup label={say('workshop:onePerson')}>
          {form.people.map((person) => (
            <option key={person.key} value={wordOf({ person: person.key })}>
              {person.label}
            </option>
          ))}
          {/* Somebody who is not here any more stays shown until another is chosen. */}
          {'person' in seat &&
          !form.people.some(({ key }) => key === seat.person) &&
          !outsiders.some(({ key }) => key === seat.person) ? (
            <option value={word}>{say('workshop:personGone')}</option>
          ) : null}
        </optgroup>
        <optgroup label={say('workshop:fromOutside')}>
          {outsiders.map(({ key, label: name }) => (
            <option key={key} value={wordOf({ person: key })}>
              {name}
            </option>
          ))}
          <option value={FIND}>{say('workshop:findOutsider')}</option>
        </optgroup>
        {isLost ? (
          <option value={word}>{say('duty' in seat ? 'workshop:rosterGone' : 'workshop:fieldGone')}</option>
        ) : null}
      </select>
      {isFinding ? (
        <OnePerson
          id={id}
          person={null}
          set={(person) => {
            setFinding(false);
            if (person) ask(person);
          }}
        />
      ) : null}
      {isAgain ? <span className="text-soft">{say('workshop:anotherMember')}</span> : null}
    </>
  );
}
