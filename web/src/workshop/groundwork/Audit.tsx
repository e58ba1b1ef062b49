import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { DayField } from '../../fields/DateInput.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { meApi } from '../../wire/me.ts';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { Byline } from './States.tsx';

const DAY = /^\d{4}-\d\d-\d\d$/;

/** Who could do what at the end of a day in the past, and what was changed of that on the day. */
export function Audit() {
  const [day, setDay] = useState('');
  const { data: me } = meApi.useMeQuery();
  return (
    <section className="mt-10" aria-labelledby="audit-head">
      <h2 id="audit-head" className="section-head">
        {say('ground:audit')}
      </h2>
      <p className="mt-2 text-soft">{say('ground:auditHint')}</p>
      <label htmlFor="audit-day" className="mt-3 block text-[13px] text-soft">
        {say('ground:auditDay')}
      </label>
      <DayField
        id="audit-day"
        value={day}
        today={(me?.desk.now ?? '').slice(0, 10)}
        notBefore={null}
        withTime={false}
        isPast
        onChange={setDay}
      />
      {DAY.test(day) ? <OnDay day={day} /> : null}
    </section>
  );
}

function OnDay({ day }: { day: string }) {
  const { data, error } = groundApi.useRightsOnDayQuery({ day });
  if (error)
    return (
      <div className="mt-3">
        <Trouble error={error} />
      </div>
    );
  if (!data) return <p className="mt-3 text-soft">{say('desk:oneMoment')}</p>;
  return (
    <>
      <dl className="mt-3" aria-live="polite">
        {data.rights.map((each) => (
          <RightOnDay key={each.right} {...each} staff={data.staff} />
        ))}
      </dl>
      {data.registers.map(({ name, rights }) => (
        <section key={name}>
          <h3 className="section-head mt-6">{say('rights:inRegister', { name })}</h3>
          <dl>
            {rights.map((each) => (
              <RightOnDay key={each.right} {...each} staff={data.staff} />
            ))}
          </dl>
        </section>
      ))}
      <h3 className="section-head mt-6">{say('ground:changedOnDay')}</h3>
      <ul>
        {data.changes.map((change) => (
          <li key={`${change.at} ${change.about} ${told(change.words)}`} className="border-b border-rule py-1.5">
            {change.about ? <strong>{change.about}: </strong> : null}
            {told(change.words)}
            {change.why ? <span className="block">{say('ground:whyQuoted', { why: change.why })}</span> : null}
            <Byline {...change} />
          </li>
        ))}
        {data.changes.length === 0 ? <li className="py-1.5 text-soft">{say('ground:nothingOnDay')}</li> : null}
      </ul>
      <h3 className="section-head mt-6">{say('ground:lookedOnDay')}</h3>
      <ul>
        {data.looks.map(({ id, at, by, words }) => (
          <li key={id} className="border-b border-rule py-1.5">
            {told(words)}
            <p className="text-soft">
              {by === '' ? say('ground:somebodyByLink') : by}, <DeskMoment at={at} />
            </p>
          </li>
        ))}
        {data.looks.length === 0 ? <li className="py-1.5 text-soft">{say('ground:noLooksOnDay')}</li> : null}
      </ul>
    </>
  );
}

type OnDay = AnswerOf<'rightsOnDay'>['rights'][number];

const RightOnDay = ({ words, people, staff }: Omit<OnDay, 'right'> & { staff: number }) => (
  <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.3fr)] gap-x-4 border-b border-rule py-1.5">
    <dt>{told(words)}</dt>
    <dd className={people.length === 0 ? 'text-soft' : ''}>
      <Names people={people} staff={staff} />
    </dd>
  </div>
);

/** Names that are told at once. */
const TOLD = 8;

/** Those who had a right: all of the staff in a word, many behind the first few. */
function Names({ people, staff }: { people: readonly { readonly name: string }[]; staff: number }) {
  if (people.length === 0) return say('ground:nobody');
  const names = people.map(({ name }) => name);
  if (names.length <= TOLD) return names.join(', ');
  return (
    <details>
      <summary className="cursor-pointer">
        {names.length === staff
          ? say('ground:allOfStaff', { count: staff })
          : say('ground:peopleCount', { count: names.length })}
      </summary>
      {names.join(', ')}
    </details>
  );
}
