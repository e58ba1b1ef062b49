import type { AnswerOf } from '@tolvek/contract';
import { Trouble } from '../ui/Trouble.tsx';
import { workshopApi } from './endpoints.ts';

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
  if (isFetching || !data) return <p className="mt-3 text-soft">Looking what it computes otherwise …</p>;
  if (data.fields.length === 0) return null;
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">
        {data.fields.map((field) => `“${field}”`).join(', ')} {data.fields.length === 1 ? 'is' : 'are'} computed
        otherwise
      </legend>
      <p className="mt-1">{reachInWords(data)}</p>
      {(
        [
          [
            false,
            'Requests that are there keep theirs',
            'They go on being computed as they were, also when they are changed.',
          ],
          [true, 'Compute them anew', 'Each gets a line in its history. This can’t be undone in one step.'],
        ] as const
      ).map(([value, label, says]) => (
        <label key={label} className="mt-2 grid grid-cols-[22px_1fr] items-baseline">
          <input
            type="radio"
            name="recomputing"
            className="accent-green"
            checked={isRecomputed === value}
            onChange={() => set(value)}
          />
          <span>
            {label}
            <span className="block text-[13px] text-soft">{says}</span>
          </span>
        </label>
      ))}
      {data.requests.length > 0 ? (
        <details className="mt-2">
          <summary className="text-green">
            {data.changed > data.requests.length ? `the first ${data.requests.length} of them` : 'which ones'}
          </summary>
          <ul>
            {data.requests.map((request) => (
              <li key={request.number} className="border-b border-rule py-1.5 text-[13.5px]">
                <span className="font-mono text-[12.5px]">{request.number}</span> {request.subject}
                {request.changes.map((change) => (
                  <span key={change.label} className="block text-soft">
                    {change.label}: {change.before || 'nothing'} → {change.after || 'nothing'}
                  </span>
                ))}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </fieldset>
  );
}

function reachInWords({ looked, changed, some }: AnswerOf<'recomputation'>): string {
  if (some && looked === 0) return 'How many requests that would change is known only to who may read what it reads.';
  const of = looked === 1 ? 'the one request that is there' : `the ${looked} requests that are there`;
  const may = some ? ' that you may look into' : '';
  if (looked === 0) return 'There are no requests yet.';
  if (changed === 0) return `Of ${of}${may} none would change now.`;
  return `${changed} of ${of}${may} would change.`;
}
