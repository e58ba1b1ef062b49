import type { AnswerOf } from '@tolvek/contract';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { percentOf } from './percent.ts';

type Team = AnswerOf<'forecast'>['teams'][number];
type Tried = AnswerOf<'forecastTried'>;

/** What would help most, and a change of one's own to try. */
export function Helps({ teams }: { teams: readonly Team[] }) {
  const { data, error, refetch } = floorApi.useForecastHelpsQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <section aria-labelledby="helps">
      <h2 id="helps" className="section-head">
        {say('forecast:helps')}
      </h2>
      <p className="mt-1 text-[13px] text-soft">{say('forecast:helpsIntro')}</p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data?.changes.length === 0 ? <p className="mt-2">{say('forecast:helpsNone')}</p> : null}
      <ol>
        {data?.changes.map((change) => (
          <li key={told(change.what)} className="border-b border-rule py-2.5">
            <p className="font-semibold">{told(change.what)}</p>
            <Effect tried={change} />
          </li>
        ))}
      </ol>
      {teams.length > 0 ? <TryOne teams={teams} /> : null}
    </section>
  );
}

/** How many fewer are late by a change, and for which it changes most. */
function Effect({ tried: { fewer, helped } }: { tried: Pick<Tried, 'fewer' | 'helped'> }) {
  const count = Math.round(fewer);
  return (
    <div className="text-[13.5px]">
      <p>
        {count >= 1
          ? say('forecast:fewer', { count })
          : say(helped.length > 0 && fewer > 0 ? 'forecast:fewerThanOne' : 'forecast:fewerNone')}
      </p>
      {helped.length > 0 ? (
        <ul className="flex flex-wrap gap-x-5 text-soft">
          {helped.map(({ number, before, after }) => (
            <li key={number}>
              <Link to={`/floor/all/${number}`}>{number}</Link>{' '}
              {say('forecast:before', { before: percentOf(before), after: percentOf(after) })}
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

const HOURS = [1, 2, 3, 4] as const;

function TryOne({ teams }: { teams: readonly Team[] }) {
  const [team, setTeam] = useState(teams[0]?.key ?? '');
  const days = teams.find(({ key }) => key === team)?.days ?? [];
  const [chosenDay, setDay] = useState('');
  const day = days.includes(chosenDay) ? chosenDay : (days[0] ?? '');
  const [hours, setHours] = useState(2);
  const [ask, { data, error, isFetching, originalArgs }] = floorApi.useLazyForecastTriedQuery();
  const asked = originalArgs?.query;
  const isShown = asked?.team === team && asked.day === day && asked.hours === hours;
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    void ask({ query: { team, day, hours } });
  };
  return (
    <form onSubmit={submit} className="mt-3 border border-rule bg-sheet px-4 py-3">
      <h3 className="text-[14px] font-semibold">{say('forecast:try')}</h3>
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <div className="grid gap-0.5 text-[13px]">
          <label htmlFor="try-team">{say('forecast:tryTeam')}</label>
          <select id="try-team" className="input" value={team} onChange={(event) => setTeam(event.target.value)}>
            {teams.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </div>
        <div className="grid gap-0.5 text-[13px]">
          <label htmlFor="try-day">{say('forecast:tryDay')}</label>
          <select id="try-day" className="input" value={day} onChange={(event) => setDay(event.target.value)}>
            {days.map((each) => (
              <option key={each} value={each}>
                {say('floor:day', { day: each })}
              </option>
            ))}
          </select>
        </div>
        <div className="grid gap-0.5 text-[13px]">
          <label htmlFor="try-hours">{say('forecast:tryHours')}</label>
          <select
            id="try-hours"
            className="input"
            value={hours}
            onChange={(event) => setHours(Number(event.target.value))}
          >
            {HOURS.map((count) => (
              <option key={count} value={count}>
                {say('forecast:hours', { count })}
              </option>
            ))}
          </select>
        </div>
        <Button type="submit" disabled={isFetching || day === ''}>
          {say('forecast:tryNow')}
        </Button>
      </div>
      <div role="status" className="mt-2 min-h-10">
        {isShown && error ? <Trouble error={error} /> : null}
        {isShown && data && !isFetching ? <Effect tried={data} /> : null}
      </div>
    </form>
  );
}
