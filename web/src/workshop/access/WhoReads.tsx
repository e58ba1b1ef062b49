import type { AnswerOf } from '@tolvek/contract';
import { partsOf } from '@tolvek/core/register';
import { useState } from 'react';
import { Link } from 'react-router';
import { DayField } from '../../fields/DateInput.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { meApi } from '../../wire/me.ts';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { type One, OnePerson } from './Chosen.tsx';
import type { Plan } from './usePlan.ts';

const DAY = /^\d{4}-\d\d-\d\d$/;
const PLANS = ['force', 'draft', 'day'] as const;
type By = (typeof PLANS)[number];
type Levels = AnswerOf<'fieldReaders'>['people'][number]['levels'];

/** What is looked at: who reads a field, or what somebody reads; by the plan in force, the draft, or as it was on a day. */
interface Looking {
  readonly plan: 'force' | 'draft';
  readonly day?: string;
}

/** Who can see and change a field, and what somebody can see and change: over all requests, with the rule that decides. */
export function WhoReads({ plan }: { plan: Plan }) {
  const { data: me } = meApi.useMeQuery();
  const [about, setAbout] = useState<'field' | 'person' | 'reach'>('field');
  const [field, setField] = useState('');
  const [person, setPerson] = useState<One | null>(null);
  const [by, setBy] = useState<By>('force');
  const [day, setDay] = useState('');
  const looking: Looking = {
    plan: by === 'draft' ? 'draft' : 'force',
    ...(by === 'day' && DAY.test(day) ? { day } : {}),
  };
  const isReady = by !== 'day' || DAY.test(day);
  return (
    <section aria-labelledby="who-reads">
      <h2 id="who-reads" className="section-head mt-8">
        {say('accessPlan:whoReads')}
      </h2>
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <select
          className="input w-auto"
          aria-label={say('accessPlan:askAbout')}
          value={about}
          onChange={(event) => setAbout(event.target.value as 'field')}
        >
          <option value="field">{say('accessPlan:askField')}</option>
          <option value="person">{say('accessPlan:askPerson')}</option>
          <option value="reach">{say('accessPlan:askReach')}</option>
        </select>
        {about !== 'person' ? (
          <select
            className="input w-auto"
            aria-label={say('accessPlan:whichField')}
            value={field}
            onChange={(event) => setField(event.target.value)}
          >
            <option value="">{say('accessPlan:whichField')}</option>
            {partsOf(plan.fields).map(({ key, label }) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
        ) : (
          <OnePerson id="who-reads" person={person} set={setPerson} />
        )}
        <select
          className="input w-auto"
          aria-label={say('accessPlan:byWhich')}
          value={by}
          onChange={(event) => setBy(event.target.value as By)}
        >
          {PLANS.filter((each) => about !== 'reach' || each !== 'day').map((each) => (
            <option key={each} value={each}>
              {say(`accessPlan:by.${each}`)}
            </option>
          ))}
        </select>
        {by === 'day' ? (
          <span className="w-44">
            <DayField
              id="who-reads-day"
              value={day}
              today={(me?.desk.now ?? '').slice(0, 10)}
              notBefore={null}
              withTime={false}
              isPast
              onChange={setDay}
            />
          </span>
        ) : null}
      </div>
      {about === 'reach' && field !== '' ? <Reach register={plan.key} field={field} plan={looking.plan} /> : null}
      {isReady && about === 'field' && field !== '' ? <Readers register={plan.key} field={field} {...looking} /> : null}
      {isReady && about === 'person' && person ? <Reads register={plan.key} person={person[0]} {...looking} /> : null}
    </section>
  );
}

const notWritten = (since: string) => (
  <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
    {say('accessPlan:notWritten', { day: since })}
  </p>
);

const AsOfThen = ({ day }: { day: string | undefined }) =>
  day ? <p className="mt-2 text-[13px] text-soft">{say('accessPlan:asOfThen', { day })}</p> : null;

function Readers({ register, field, ...looking }: Looking & { register: string; field: string }) {
  const { data, error } = workshopApi.useFieldReadersQuery({ key: register, query: { field, ...looking } });
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="mt-3 text-soft">{say('accessPlan:looking')}</p>;
  const { since, counts, people, more } = data;
  if (since !== null) return notWritten(since);
  return (
    <div aria-live="polite">
      <AsOfThen day={looking.day} />
      <p className="mt-3">
        {say('accessPlan:readersCount', { write: counts.write, read: counts.read, hidden: counts.hidden })}
      </p>
      <ul className="mt-2">
        {people.map(({ id, name, email, levels }) => (
          <li key={id} className="grid grid-cols-[minmax(0,14rem)_1fr] gap-x-4 border-b border-rule py-1.5">
            <span>
              {name} <span className="block truncate text-[12.5px] text-soft">{email}</span>
            </span>
            <LevelLines levels={levels} />
          </li>
        ))}
        {more > 0 ? <li className="py-1 text-soft">{say('accessPlan:morePeople', { count: more })}</li> : null}
      </ul>
    </div>
  );
}

function Reads({ register, person, ...looking }: Looking & { register: string; person: string }) {
  const { data, error } = workshopApi.usePersonReadsQuery({ key: register, query: { person, ...looking } });
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="mt-3 text-soft">{say('accessPlan:looking')}</p>;
  const { since, name, requests, fields } = data;
  if (since !== null) return notWritten(since);
  return (
    <div aria-live="polite">
      <AsOfThen day={looking.day} />
      <p className="mt-3">
        {requests === 0
          ? say('accessPlan:nothingToDo', { name })
          : say('accessPlan:toDoWith', { name, count: requests })}
      </p>
      {requests === 0 ? null : (
        <ul className="mt-2">
          {fields.map(({ field, label, levels }) => (
            <li key={field} className="grid grid-cols-[minmax(0,14rem)_1fr] gap-x-4 border-b border-rule py-1.5">
              <span>{label}</span>
              <LevelLines levels={levels} />
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Everything that the value of a field reaches: each place with the way there, and who learns of it that may not read it. */
function Reach({ register, ...query }: { register: string; field: string; plan: 'force' | 'draft' }) {
  const { data, error } = workshopApi.useFieldReachQuery({ key: register, query });
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="mt-3 text-soft">{say('accessPlan:looking')}</p>;
  const { forms, isCalled, inEmails, moves, references } = data;
  return (
    <div aria-live="polite">
      {forms.map(({ key, title, places }) => (
        <section key={key}>
          <h3 className="mt-4 font-semibold">{title}</h3>
          {places === null ? <p className="text-brick">{say('flows:tooManyKinds')}</p> : null}
          <ul>
            {(places ?? []).map(({ says, how, way, leaksTo }) => (
              <li
                key={told(says) + way.length}
                className={`border-b border-rule py-1.5 ${leaksTo === null ? '' : 'border-l-[3px] border-l-brick pl-2.5'}`}
              >
                {told(says)} <span className="text-soft">{say(`accessPlan:reaches.${how}`)}</span>
                {way.length > 1 ? (
                  <ol className="ml-5 list-decimal text-[13px] text-soft">
                    {way.map((step) => (
                      <li key={told(step)}>{told(step)}</li>
                    ))}
                  </ol>
                ) : null}
                {leaksTo === null ? null : (
                  <span className="block text-brick">{say('accessPlan:leaksTo', { who: told(leaksTo) })}</span>
                )}
              </li>
            ))}
          </ul>
        </section>
      ))}
      <ul className="mt-3">
        {isCalled ? <li className="py-1">{say('accessPlan:reachCalled')}</li> : null}
        {moves.length > 0 ? <li className="py-1">{say('accessPlan:reachMoves', { stages: moves })}</li> : null}
        {references.map((each) => (
          <li key={`${each.register} ${each.field}`} className="py-1">
            {say(each.isOpen ? 'accessPlan:reachReference' : 'accessPlan:reachNoReference', {
              register: each.register,
              field: each.field,
            })}
          </li>
        ))}
        <li className="py-1 text-soft">{say(inEmails ? 'accessPlan:reachEmails' : 'accessPlan:reachNoEmails')}</li>
        {forms.length === 0 && !isCalled && moves.length === 0 && references.length === 0 ? (
          <li className="py-1 text-soft">{say('accessPlan:reachNowhere')}</li>
        ) : null}
      </ul>
    </div>
  );
}

/** The rule that decided, where one did: that staff work with a field is as usual. */
export function Because({ rule, isAlone = false }: { rule: Levels[number]['rule']; isAlone?: boolean }) {
  if (typeof rule === 'object' && rule.say === 'access:deskDefault') return null;
  return (
    <span className="text-soft">
      {isAlone ? '' : ' · '}
      {told(rule)}
    </span>
  );
}

/** How a level looks. */
export const LOOKS = { hidden: 'text-brick', read: 'text-soft', write: 'text-ink' } as const;

/** The levels somebody has a field at, each with the number of requests, one of them, and the rule. */
const LevelLines = ({ levels }: { levels: Levels }) => (
  <ul>
    {levels.map(({ level, rule, requests, example }) => (
      <li key={`${level} ${told(rule)}`}>
        <span className={`font-semibold ${LOOKS[level]}`}>{say(`accessPlan:cell.${level}`)}</span>{' '}
        {say('accessPlan:onRequests', { count: requests })}
        {example ? (
          <>
            {', '}
            {say('accessPlan:suchAs')}{' '}
            <Link to={`/floor/all/${example}`} className="text-green underline">
              {example}
            </Link>
          </>
        ) : null}
        <Because rule={rule} />
      </li>
    ))}
  </ul>
);
