import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import { LongWork } from './LongWork.tsx';

/**
 * A rule over the requests that are there: first what it would do, counted and listed; then, if
 * wanted, it is done.
 */
export function OverExisting({ formKey, rule, isKept }: { formKey: string; rule: string; isKept: boolean }) {
  const [run, { data, error, isLoading }] = workshopApi.useOverExistingMutation();
  const [among, setAmong] = useState<'unfinished' | 'all'>('unfinished');
  const [takeBack, takingBack] = workshopApi.useTakeRunBackMutation();
  /** Work that goes on: what it is, and its job. */
  const [going, setGoing] = useState<{ says: string; job: string } | null>(null);
  const look = (shown: string | null, of = among): void =>
    void run({ key: formKey, rule, body: { shown, among: of } }).then((done) => {
      if (done.data?.job) setGoing({ says: say('workshop:over.changing'), job: done.data.job });
    });
  const back = (id: string): void => {
    takeBack({ key: formKey, run: id })
      .unwrap()
      .then(({ back: changed, left, job }) => {
        if (job) return setGoing({ says: say('workshop:over.undoing'), job });
        toast(
          [
            say('workshop:over.undone', { count: changed }),
            ...(left > 0 ? [say('workshop:over.undoneLeft', { count: left })] : []),
          ].join(' '),
        );
        look(null);
      })
      .catch((problem: unknown) => toast.error(refusalInWords(problemOf(problem))));
  };
  const kind = among === 'all' ? 'all' : 'unfinished';
  if (!data && !error)
    return (
      <button
        type="button"
        className="text-green underline disabled:text-soft"
        disabled={isLoading || !isKept}
        onClick={() => look(null)}
      >
        {say('workshop:over.check')}
      </button>
    );
  if (going)
    return (
      <div className="mt-3 border-t border-rule pt-2.5">
        <LongWork
          {...going}
          of={say('workshop:requestsWord')}
          ended={({ state, changed }) => {
            setGoing(null);
            toast(say(state === 'done' ? 'workshop:over.done' : 'workshop:over.partly', { count: changed }));
            look(null);
          }}
        />
      </div>
    );
  return (
    <div className="mt-3 border-t border-rule pt-2.5 text-[13px]" aria-live="polite">
      {error ? (
        <p className="text-brick">
          {refusalInWords(problemOf(error))}{' '}
          <button type="button" className="text-green underline" disabled={isLoading} onClick={() => look(null)}>
            {say('workshop:over.again')}
          </button>
        </p>
      ) : null}
      {data ? (
        <>
          <p>
            {data.applied ? (
              <b>{say(`workshop:over.${kind}Changed`, { changed: data.changed, count: data.looked })}</b>
            ) : (
              <b>{say(`workshop:over.${kind}Would`, { changed: data.changed, count: data.looked })}</b>
            )}{' '}
            {data.refused > 0 ? say('workshop:over.refused', { count: data.refused }) : ''}
          </p>
          <ul className="mt-1 max-h-52 overflow-auto">
            {data.requests.map((request) => (
              <li key={request.number} className="border-b border-rule py-1">
                <span className="font-mono text-[12.5px]">{request.number}</span> {told(request.subject)}
                {request.refused ? <span className="text-brick"> {told(request.refused)}</span> : null}
                {request.changes.map((change) => (
                  <span key={change.label} className="block pl-4 text-soft">
                    {change.label}: {told(change.before) || say('workshop:emptyValue')} →{' '}
                    {told(change.after) || say('workshop:emptyValue')}
                  </span>
                ))}
              </li>
            ))}
          </ul>
          {data.applied ? null : (
            <label className="mt-2 flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-green"
                checked={among === 'all'}
                onChange={(event) => {
                  const of = event.target.checked ? 'all' : 'unfinished';
                  setAmong(of);
                  look(null, of);
                }}
              />
              {say('workshop:over.finishedToo')}
            </label>
          )}
          {data.last ? (
            <p className="mt-2">
              {data.applied
                ? say('workshop:over.undoDays')
                : say('workshop:over.last', { count: data.last.changed, at: data.last.at })}{' '}
              <button
                type="button"
                className="text-green underline disabled:text-soft"
                disabled={takingBack.isLoading || isLoading}
                onClick={() => back(data.last?.run ?? '')}
              >
                {say('workshop:over.undo')}
              </button>
            </p>
          ) : null}
          {!data.applied && data.changed > 0 ? (
            <p className="mt-2">
              <Button disabled={isLoading || !isKept} onClick={() => look(data.shown)}>
                {say('workshop:over.changeNow', { count: data.changed })}
              </Button>
            </p>
          ) : null}
        </>
      ) : null}
    </div>
  );
}
