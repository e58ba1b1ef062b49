import type { AnswerOf } from '@tolvek/contract';
import { emailStateInWords } from '@tolvek/core/notice';
import { type FormEvent, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

/** Who was written to about a request, and why somebody was not; looked up when it is opened. */
export function RequestEmails({ number }: { number: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details className="mt-6" onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="section-head cursor-pointer">{say('hearing:log')}</summary>
      {isOpen ? <Log number={number} /> : null}
    </details>
  );
}

function Log({ number }: { number: string }) {
  const { data, error } = floorApi.useRequestEmailsQuery({ number });
  if (error) return <Trouble error={error} />;
  if (!data) return null;
  return (
    <>
      {data.coming.length > 0 ? (
        <>
          <p className="mt-2 font-semibold">{say('hearing:coming')}</p>
          <ul className="mb-4">
            {data.coming.map(({ at, about, what }) => (
              <li key={`${at} ${told(about)} ${told(what)}`} className="border-b border-rule py-1.5">
                {say('hearing:comingLine', { at, about: told(about) })}
                <span className="block text-[12.5px] text-soft">{told(what)}</span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {data.byHand.length > 0 ? <ByHand number={number} notices={data.byHand} /> : null}
      <ul>
        {data.emails.map((email) => (
          <li key={email.id} className="border-b border-rule py-1.5">
            {say(email.isText ? 'hearing:textLine' : 'hearing:logLine', {
              person: email.person,
              about: told(email.about),
            })}
            <span className={`block text-[12.5px] ${email.state === 'failed' ? 'text-brick' : 'text-soft'}`}>
              {told(emailStateInWords(email))}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[13px] text-soft">
        {say(data.emails.length === 0 ? 'hearing:logNone' : data.more ? 'hearing:logMore' : 'hearing:logHint')}
      </p>
    </>
  );
}

/** Sends one of the emails that somebody sends by hand. */
function ByHand({ number, notices }: { number: string; notices: AnswerOf<'requestEmails'>['byHand'] }) {
  const [send, { isLoading, error }] = floorApi.useSendNoticeMutation();
  const [notice, setNotice] = useState(notices[0]?.key ?? '');
  const [text, setText] = useState('');
  const chosen = notices.find(({ key }) => key === notice);
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    send({ number, body: { notice, text: chosen?.words ? text : '' } })
      .unwrap()
      .then(({ people }) => {
        setText('');
        toast.success(say('hearing:byHandSent', { count: people }));
      })
      // It is said beside it.
      .catch(() => undefined);
  };
  return (
    <form className="mb-4" onSubmit={submit}>
      <p className="mt-2 font-semibold">{say('hearing:byHand')}</p>
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <select
          className="input w-auto"
          aria-label={say('hearing:byHandWhich')}
          value={notice}
          onChange={(event) => setNotice(event.target.value)}
        >
          {notices.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        {chosen?.words ? (
          <input
            className="input min-w-48 flex-1"
            aria-label={say('hearing:byHandText')}
            placeholder={say('hearing:byHandText')}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        ) : null}
        <Button type="submit" disabled={isLoading}>
          {say('hearing:byHandSend')}
        </Button>
      </div>
      {error ? <Trouble error={error} /> : null}
    </form>
  );
}
