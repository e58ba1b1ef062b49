import type { AnswerOf } from '@tolvek/contract';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import { KeepOrAnew } from './KeepOrAnew.tsx';

/** Where a release has other deadlines: what becomes of the open requests that are there. */
export function Replanning({
  formKey,
  isReplanned,
  set,
}: {
  formKey: string;
  isReplanned: boolean;
  set: (isReplanned: boolean) => void;
}) {
  const { data, error, isFetching } = workshopApi.useReplanningQuery({ key: formKey });
  if (error) return <Trouble error={error} />;
  if (isFetching || !data) return <p className="mt-3 text-soft">{say('workshop:replan.checking')}</p>;
  if (!data.differs || data.looked === 0) return null;
  return (
    <KeepOrAnew
      id="replanning"
      legend={say('workshop:replan.deadlines')}
      says={reachInWords(data)}
      ways={[
        [say('workshop:replan.keep'), say('workshop:replan.keepHint')],
        [say('workshop:replan.anew'), say('workshop:replan.anewHint')],
      ]}
      isAnew={isReplanned}
      set={set}
    >
      {data.requests.length > 0 ? (
        <details className="mt-2">
          <summary className="text-green">{say('workshop:recompute.which')}</summary>
          <ul>
            {data.requests.map(({ number, subject, from, to }) => (
              <li key={number} className="border-b border-rule py-1.5 text-[13.5px]">
                <span className="font-mono text-[12.5px]">{number}</span> {told(subject)}
                {from === null || to === null ? null : (
                  <span className="block text-soft">{say('workshop:replan.moves', { from, to })}</span>
                )}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
    </KeepOrAnew>
  );
}

function reachInWords({ looked, changed, late, held }: AnswerOf<'replanning'>): string {
  return [
    say('workshop:replan.change', { changed, count: looked }),
    ...(late > 0 ? [say('workshop:replan.late', { count: late })] : []),
    ...(held > 0 ? [say('workshop:replan.held', { count: held })] : []),
  ].join(' ');
}
