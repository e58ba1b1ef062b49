import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { problemOf } from '../wire/problem.ts';
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
      if (done.data?.job) setGoing({ says: 'Changing', job: done.data.job });
    });
  const back = (id: string): void => {
    takeBack({ key: formKey, run: id })
      .unwrap()
      .then(({ back: changed, left, job }) => {
        if (job) return setGoing({ says: 'Taking back', job });
        toast(
          `${changed === 1 ? 'One request is' : `${changed} requests are`} as before.${left > 0 ? ` In ${left}, somebody changed something since; that stays.` : ''}`,
        );
        look(null);
      })
      .catch((problem: unknown) => toast.error(problemOf(problem).detail));
  };
  const which = among === 'all' ? 'requests, finished ones too' : 'unfinished requests';
  if (!data && !error)
    return (
      <button
        type="button"
        className="text-green underline disabled:text-soft"
        disabled={isLoading || !isKept}
        onClick={() => look(null)}
      >
        See what it would do to the requests there are
      </button>
    );
  if (going)
    return (
      <div className="mt-3 border-t border-rule pt-2.5">
        <LongWork
          {...going}
          of="requests"
          ended={({ state, changed }) => {
            setGoing(null);
            const requests = changed === 1 ? 'one request' : `${changed} requests`;
            toast(
              state === 'done'
                ? `Done: ${requests} changed.`
                : `It was not done to the end: ${requests} changed, the others stay as they are.`,
            );
            look(null);
          }}
        />
      </div>
    );
  return (
    <div className="mt-3 border-t border-rule pt-2.5 text-[13px]" aria-live="polite">
      {error ? (
        <p className="text-brick">
          {problemOf(error).detail}{' '}
          <button type="button" className="text-green underline" disabled={isLoading} onClick={() => look(null)}>
            Look again
          </button>
        </p>
      ) : null}
      {data ? (
        <>
          <p>
            {data.applied ? (
              <>
                <b>{data.changed}</b> of {data.looked} {which}, were changed
                {data.refused > 0 ? `; ${data.refused} were refused and left as they are` : ''}.
              </>
            ) : (
              <>
                It would change <b>{data.changed}</b> of {data.looked} {which}
                {data.refused > 0 ? `, and refuses ${data.refused}, which would be left as they are` : ''}.
              </>
            )}
          </p>
          <ul className="mt-1 max-h-52 overflow-auto">
            {data.requests.map((request) => (
              <li key={request.number} className="border-b border-rule py-1">
                <span className="font-mono text-[12.5px]">{request.number}</span> {request.subject}
                {request.refused ? <span className="text-brick"> {request.refused}</span> : null}
                {request.changes.map((change) => (
                  <span key={change.label} className="block pl-4 text-soft">
                    {change.label}: {change.before || 'empty'} → {change.after || 'empty'}
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
              Finished requests too
            </label>
          )}
          {data.last ? (
            <p className="mt-2">
              {data.applied
                ? 'You can take this back for 30 days.'
                : `This rule changed ${data.last.changed === 1 ? 'one request' : `${data.last.changed} requests`} on ${new Date(data.last.at).toLocaleDateString('en-GB', { dateStyle: 'medium' })}.`}{' '}
              <button
                type="button"
                className="text-green underline disabled:text-soft"
                disabled={takingBack.isLoading || isLoading}
                onClick={() => back(data.last?.run ?? '')}
              >
                Take it back
              </button>
            </p>
          ) : null}
          {!data.applied && data.changed > 0 ? (
            <p className="mt-2">
              <Button disabled={isLoading || !isKept} onClick={() => look(data.shown)}>
                Change {data.changed === 1 ? 'this request' : `these ${data.changed} requests`}
              </Button>
            </p>
          ) : null}
        </>
      ) : null}
    </div>
  );
}
