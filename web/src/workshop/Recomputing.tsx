import type { AnswerOf } from '@tolvek/contract';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import { KeepOrAnew } from './KeepOrAnew.tsx';

/** Where a release computes something otherwise: what becomes of the requests that are there. */
export function Recomputing({
  formKey,
  isRecomputed,
  set,
}: {
  formKey: string;
  isRecomputed: boolean;
  set: (isRecomputed: boolean) => void;
}) {
  const { data, error, isFetching } = workshopApi.useRecomputationQuery({ key: formKey });
  if (error) return <Trouble error={error} />;
  if (isFetching || !data) return <p className="mt-3 text-soft">{say('workshop:recompute.checking')}</p>;
  if (data.fields.length === 0) return null;
  return (
    <KeepOrAnew
      id="recomputing"
      legend={say('workshop:recompute.fields', { fields: data.fields })}
      says={reachInWords(data)}
      ways={[
        [say('workshop:recompute.keep'), say('workshop:recompute.keepHint')],
        [say('workshop:recompute.again'), say('workshop:recompute.againHint')],
      ]}
      isAnew={isRecomputed}
      set={set}
    >
      {data.requests.length > 0 ? (
        <details className="mt-2">
          <summary className="text-green">
            {data.changed > data.requests.length
              ? say('workshop:recompute.first', { n: data.requests.length })
              : say('workshop:recompute.which')}
          </summary>
          <ul>
            {data.requests.map((request) => (
              <li key={request.number} className="border-b border-rule py-1.5 text-[13.5px]">
                <span className="font-mono text-[12.5px]">{request.number}</span> {told(request.subject)}
                {request.changes.map((change) => (
                  <span key={change.label} className="block text-soft">
                    {change.label}: {told(change.before) || say('workshop:nothing')} →{' '}
                    {told(change.after) || say('workshop:nothing')}
                  </span>
                ))}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </KeepOrAnew>
  );
}

function reachInWords({ looked, changed, some }: AnswerOf<'recomputation'>): string {
  if (some && looked === 0) return say('workshop:recompute.hidden');
  if (looked === 0) return say('workshop:recompute.noRequests');
  const given = { changed, count: looked };
  return say(some ? 'workshop:recompute.someChange' : 'workshop:recompute.change', given);
}
