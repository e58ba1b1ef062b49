import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { say } from '../wire/words.ts';
import { OnePerson } from './access/Chosen.tsx';
import { isAnybody } from './useProof.ts';

/** In the place of somebody: that they are still looked for. */
const FIND = ' find';

/** Whose eyes: anybody, one of the staff, or somebody from outside who is looked for. `nobody`: what an empty seat is called, where it may be. */
export function SeatPicker({
  id,
  people,
  label,
  look,
  seat,
  sit,
  called,
  nobody,
}: {
  id: string;
  /** The staff that are listed. */
  people: AnswerOf<'form'>['people'];
  label: string;
  look: string;
  seat: string;
  sit: (seat: string) => void;
  /** What somebody is called who is not among the staff that are listed. */
  called: string | undefined;
  nobody?: string;
}) {
  const [isFinding, setFinding] = useState(false);
  const isListed = seat === '' || isAnybody(seat) || people.some(({ key }) => key === seat);
  return (
    <>
      <select
        aria-label={label}
        className={look}
        value={isFinding ? FIND : seat}
        onChange={({ target: { value } }) => {
          setFinding(value === FIND);
          if (value !== FIND) sit(value);
        }}
      >
        {nobody === undefined ? null : <option value="">{nobody}</option>}
        <option value="outside">{say('workshop:anOutsider')}</option>
        <option value="staff">{say('workshop:aColleague')}</option>
        {isListed ? null : <option value={seat}>{called ?? '…'}</option>}
        <option value={FIND}>{say('workshop:somebodyFound')}</option>
        <optgroup label={say('workshop:oneOfStaff')}>
          {people.map((person) => (
            <option key={person.key} value={person.key}>
              {person.label}
            </option>
          ))}
        </optgroup>
      </select>
      {isFinding ? (
        <OnePerson
          id={id}
          person={null}
          set={(person) => {
            setFinding(false);
            if (person) sit(person[0]);
          }}
        />
      ) : null}
    </>
  );
}
