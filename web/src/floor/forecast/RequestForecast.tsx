import type { AnswerOf } from '@tolvek/contract';
import { useId, useState } from 'react';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { Between, Finish } from './LikelyLate.tsx';
import { percentOf } from './percent.ts';

type Promised = AnswerOf<'requestForecast'>['promised'][number];

/** What is likely to become of what a request was promised: reckoned when it is asked for. */
export function RequestForecast({ number }: { number: string }) {
  const [isOpen, setOpen] = useState(false);
  const id = useId();
  return (
    <div className="mt-2">
      <button
        type="button"
        className="text-[13px] text-green underline"
        aria-expanded={isOpen}
        aria-controls={id}
        onClick={() => setOpen(!isOpen)}
      >
        {say(isOpen ? 'forecast:hide' : 'forecast:ask')}
      </button>
      <div id={id}>{isOpen ? <Ahead number={number} /> : null}</div>
    </div>
  );
}

function Ahead({ number }: { number: string }) {
  const { data, error } = floorApi.useRequestForecastQuery({ number });
  if (error) return <Trouble error={error} />;
  if (!data) return null;
  if (data.promised.length === 0) return <p className="mt-1 text-[13px] text-soft">{say('forecast:nothingToSay')}</p>;
  return (
    <ul className="mt-1 border-l-[3px] border-rule-strong pl-3 text-[13px]">
      {data.promised.map((each) => (
        <li key={each.dueFor ? told(each.dueFor) : ''} className="mb-1.5">
          {each.dueFor ? `${told(each.dueFor)}: ` : data.promised.length > 1 ? `${say('forecast:toFinish')}: ` : ''}
          <Chance of={each} />, <Finish finish={each.finish} />
          <Between finish={each.finish} />
          {each.reasons.map((reason) => (
            <p key={told(reason)} className="text-soft">
              {told(reason)}
            </p>
          ))}
        </li>
      ))}
    </ul>
  );
}

function Chance({ of: { late, chance } }: { of: Promised }) {
  if (late) return <strong className="text-brick">{say('forecast:isLate')}</strong>;
  if (chance === null) return <span>{say('forecast:tooFar')}</span>;
  if (chance < 0.05) return <strong>{say('forecast:surelyInTime')}</strong>;
  return (
    <strong className={chance >= 0.5 ? 'text-brick' : ''}>
      {say('forecast:chance', { percent: percentOf(chance) })}
    </strong>
  );
}
