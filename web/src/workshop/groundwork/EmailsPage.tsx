import type { AnswerOf } from '@tolvek/contract';
import { emailStateInWords, SENT_STATES, type SentState } from '@tolvek/core/notice';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

type Email = AnswerOf<'sentEmails'>['emails'][number];

/** What went to whom by email, and what did not and why; what was not delivered is sent again. */
export function EmailsPage() {
  useTitle(say('hearing:sentTitle'));
  const [state, setState] = useState<SentState>('all');
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <h1>{say('hearing:sentTitle')}</h1>
      <p className="max-w-[46rem] text-soft">{say('hearing:sentHint')}</p>
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <label htmlFor="emails-state" className="text-soft">
          {say('hearing:sentState')}
        </label>
        <select
          id="emails-state"
          className="input w-auto"
          value={state}
          onChange={(event) => setState(event.target.value as SentState)}
        >
          {SENT_STATES.map((each) => (
            <option key={each} value={each}>
              {say(`hearing:find.${each}`)}
            </option>
          ))}
        </select>
        <input
          type="search"
          className="input max-w-80 flex-1"
          placeholder={say('hearing:sentFind')}
          aria-label={say('hearing:sentFind')}
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
      </div>
      <Emails key={`${state} ${looking}`} state={state} find={looking} />
    </main>
  );
}

/** Page after page of them, the newest first. */
function Emails({ state, find }: { state: SentState; find: string }) {
  const [pages, setPages] = useState<readonly (string | null)[]>([null]);
  return (
    <ul className="mt-3 max-w-[60rem] border-t border-rule">
      {pages.map((before, at) => (
        <PageOf
          key={before ?? ''}
          {...{ state, find, before }}
          isFirst={at === 0}
          more={at === pages.length - 1 ? (next) => setPages([...pages, next]) : null}
        />
      ))}
    </ul>
  );
}

function PageOf({
  state,
  find,
  before,
  isFirst,
  more,
}: {
  state: SentState;
  find: string;
  before: string | null;
  isFirst: boolean;
  more: ((next: string) => void) | null;
}) {
  const query = { state, find, ...(before === null ? {} : { before }) };
  const { data, error, refetch } = groundApi.useSentEmailsQuery({ query });
  if (error)
    return (
      <li>
        <Trouble error={error} again={refetch} />
      </li>
    );
  if (!data) return null;
  return (
    <>
      {data.emails.map((email) => (
        <Line key={email.id} email={email} />
      ))}
      {isFirst && data.emails.length === 0 ? <li className="py-2">{say('hearing:sentNone')}</li> : null}
      {more && data.next !== null ? (
        <li className="pt-3">
          <Button onClick={() => more(data.next ?? '')}>{say('hearing:sentMore')}</Button>
        </li>
      ) : null}
    </>
  );
}

function Line({ email }: { email: Email }) {
  const { id, person, about, number, state, again, isText } = email;
  const [send, { isLoading }] = groundApi.useSendEmailAgainMutation();
  const sendIt = (): void =>
    void send({ id })
      .unwrap()
      .then(() => toast.success(say('hearing:sentAgain')))
      .catch((error: unknown) => toast.error(refusalInWords(problemOf(error))));
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_110px_120px] items-baseline gap-x-4 border-b border-rule py-1.5">
      <span className="min-w-0">
        {say(isText ? 'hearing:textLine' : 'hearing:logLine', { person, about: told(about) })}
        <span className={`block text-[12.5px] ${state === 'failed' ? 'text-brick' : 'text-soft'}`}>
          {told(emailStateInWords(email))}
        </span>
      </span>
      <span className="font-mono text-[12.5px]">
        {number === null ? null : <Link to={`/floor/all/${number}`}>{number}</Link>}
      </span>
      <span className="text-right">
        {again ? (
          <button
            type="button"
            className="text-[13px] text-green underline underline-offset-[3px]"
            aria-label={say('hearing:sendAgainTo', { person })}
            disabled={isLoading}
            onClick={sendIt}
          >
            {say('hearing:sendAgain')}
          </button>
        ) : null}
      </span>
    </li>
  );
}
