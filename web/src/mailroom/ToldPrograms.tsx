import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { mailroomApi } from './endpoints.ts';

/** What the stand-in for other programs received, the newest first. */
export function ToldPrograms() {
  const { data, error, refetch } = mailroomApi.useToldProgramsQuery(undefined, {
    ...{ pollingInterval: 2_000, skipPollingIfUnfocused: true },
  });
  if (error) return <Trouble error={error} again={refetch} />;
  return (
    <article className="max-w-[52rem]">
      <h2 className="text-[21px]">{say('mailroom:programs')}</h2>
      <p className="mt-1 text-soft">{say('mailroom:programsHint')}</p>
      {data?.told.length === 0 ? <p className="mt-4 text-soft">{say('mailroom:programsNone')}</p> : null}
      {data?.told.map(({ id, name, receivedAt, status, headers, body }, place) => (
        <details key={id} open={place === 0} className="mt-3 border-b border-rule pb-3">
          <summary>
            {say('mailroom:toldAt', { name, at: receivedAt })}{' '}
            <span className={status < 300 ? 'text-green' : 'text-brick'}>{say('mailroom:itAnswered', { status })}</span>
          </summary>
          <dl className="mt-2 grid grid-cols-[12rem_1fr] font-mono text-[12.5px] max-sm:grid-cols-1">
            {headers.map((header) => (
              <div key={header.name} className="contents">
                <dt className="border-b border-rule py-1 text-soft">{header.name}</dt>
                <dd className="border-b border-rule py-1 break-all">{header.value}</dd>
              </div>
            ))}
          </dl>
          <pre className="mt-2 font-mono text-[12.5px] break-words whitespace-pre-wrap">{laidOut(body)}</pre>
        </details>
      ))}
    </article>
  );
}

/** JSON as people read it; anything else as it is. */
function laidOut(body: string): string {
  try {
    return JSON.stringify(JSON.parse(body), null, 2);
  } catch {
    return body;
  }
}
