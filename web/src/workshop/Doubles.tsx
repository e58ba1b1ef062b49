import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { Trouble } from '../ui/Trouble.tsx';
import { workshopApi } from './endpoints.ts';

type Rule = AnswerOf<'doubles'>['rules'][number];

/** What must not be asked twice in a register, and the requests that share it all the same. */
export function Doubles({ registerKey: key }: { registerKey: string }) {
  const { data, error, refetch } = workshopApi.useDoublesQuery({ key });
  if (error) return <Trouble error={error} again={refetch} />;
  if (!data || data.rules.length === 0) return null;
  return (
    <>
      <h2 className="section-head mt-9">What no two may share</h2>
      <ul>
        {data.rules.map((rule) => (
          <li key={`${rule.fields.join(' ')} ${rule.among}`} className="border-b border-rule py-2">
            <b className="font-semibold">{rule.fields.join(' together with ')}</b>
            <span className="text-soft">{rule.among === 'all' ? ', among all' : ', among those not finished'}</span>
            <span className="block">{standing(rule)}</span>
            {rule.doubles.map(({ n, requests }) => (
              <span key={requests[0]?.number} className="mt-1 block pl-4">
                {requests.map(({ number, subject }) => (
                  <Link key={number} to={`/floor/all/${number}`} className="mr-4 inline-block">
                    {subject} <span className="font-mono text-[12.5px] text-soft">{number}</span>
                  </Link>
                ))}
                {n > requests.length ? <span className="text-soft">and {n - requests.length} more</span> : null}
              </span>
            ))}
          </li>
        ))}
      </ul>
    </>
  );
}

function standing({ told, groups, doubles }: Rule): string {
  if (!told) return 'You may not read all of it, so nothing is said of who shares it.';
  if (groups === 0) return 'Nobody shares it.';
  const more = groups > doubles.length ? ` The first ${doubles.length} are listed.` : '';
  return groups === 1
    ? 'One answer stands more than once, from before this was said. Change one of them, or leave it: no other can join.'
    : `${groups} answers stand more than once, from before this was said. Change them, or leave them: no other can join.${more}`;
}
