import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';

type Rule = AnswerOf<'doubles'>['rules'][number];

/** What must not be asked twice in a register, and the requests that share it all the same. */
export function Doubles({ registerKey: key }: { registerKey: string }) {
  const { data, error, refetch } = workshopApi.useDoublesQuery({ key });
  if (error) return <Trouble error={error} again={refetch} />;
  if (!data || data.rules.length === 0) return null;
  return (
    <>
      <h2 className="section-head mt-9">{say('workshop:doubles.title')}</h2>
      <ul>
        {data.rules.map((rule) => (
          <li key={`${rule.fields.join(' ')} ${rule.among}`} className="border-b border-rule py-2">
            <b className="font-semibold">{say('workshop:doubles.fields', { fields: rule.fields })}</b>{' '}
            <span className="text-soft">
              {say(rule.among === 'all' ? 'workshop:amongAll' : 'workshop:amongUnfinished')}
            </span>
            <span className="block">{standing(rule)}</span>
            {rule.doubles.map(({ n, requests }) => (
              <span key={requests[0]?.number} className="mt-1 block pl-4">
                {requests.map(({ number, subject }) => (
                  <Link key={number} to={`/floor/all/${number}`} className="mr-4 inline-block">
                    {told(subject)} <span className="font-mono text-[12.5px] text-soft">{number}</span>
                  </Link>
                ))}
                {n > requests.length ? (
                  <span className="text-soft">{say('workshop:doubles.more', { n: n - requests.length })}</span>
                ) : null}
              </span>
            ))}
          </li>
        ))}
      </ul>
    </>
  );
}

function standing({ told, groups, doubles }: Rule): string {
  if (!told) return say('workshop:doubles.hidden');
  if (groups === 0) return say('workshop:doubles.none');
  const all = say('workshop:doubles.found', { count: groups });
  return groups > doubles.length ? `${all} ${say('workshop:doubles.listed', { n: doubles.length })}` : all;
}
