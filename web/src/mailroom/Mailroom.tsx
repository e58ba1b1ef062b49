import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say } from '../wire/words.ts';
import { mailroomApi } from './endpoints.ts';
import { Texts } from './Texts.tsx';
import { ToldPrograms } from './ToldPrograms.tsx';

/** The Mailroom: the letters this installation sent, as their readers received them. */
export function Mailroom() {
  useTitle(say('common:mailroom'));
  const { id } = useParams();
  const [find, setFind] = useState('');
  const { data, error, refetch } = mailroomApi.useMailroomQuery(
    { query: { find } },
    { pollingInterval: 2_000, skipPollingIfUnfocused: true },
  );
  return (
    <div className="grid min-h-[calc(100dvh-46px)] grid-cols-1 md:h-[calc(100dvh-46px)] md:grid-cols-[minmax(18rem,26rem)_1fr]">
      <section className={`min-h-0 overflow-auto border-r border-rule px-5 pt-4 ${id ? 'hidden md:block' : ''}`}>
        <h1>{say('common:mailroom')}</h1>
        <p className="text-soft">
          {say('mailroom:intro')}
          {data && data.waiting > 0 ? ` ${say('mailroom:waiting', { count: data.waiting })}` : ''}
          {data && data.failed > 0 ? ` ${say('mailroom:failed', { count: data.failed })}` : ''}
        </p>
        <input
          type="search"
          aria-label={say('mailroom:findEmail')}
          placeholder={say('mailroom:findHint')}
          className="input mt-3"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <p className="mt-2">
          <Link to="/mailroom/write">{say('mailroom:write')}</Link>
          <Link to="/mailroom/texts" className="ml-4">
            {say('mailroom:texts')}
          </Link>
          <Link to="/mailroom/programs" className="ml-4">
            {say('mailroom:programs')}
          </Link>
        </p>
        {error ? (
          <div className="mt-4">
            <Trouble error={error} again={refetch} />
          </div>
        ) : null}
        {data?.letters.length === 0 ? (
          <p className="py-5 text-soft">{find ? say('mailroom:noneFound') : say('mailroom:noneYet')}</p>
        ) : null}
        <ul className="mt-2">
          {data?.letters.map((letter) => (
            <li
              key={letter.id}
              className={`border-b border-rule ${letter.id === id ? 'bg-sheet shadow-[inset_3px_0_var(--green)]' : ''}`}
            >
              <Link to={`/mailroom/${letter.id}`} className="block px-2 py-2 text-ink no-underline">
                <span className="subject block truncate text-[15.5px]">{letter.subject}</span>
                <span className="flex justify-between gap-3 text-[12.5px] text-soft">
                  <span className="truncate">{readerOf(letter.to)}</span>
                  <span className="flex-none tabular-nums">
                    <DeskMoment at={letter.receivedAt} />
                  </span>
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <section className={`min-h-0 overflow-auto bg-sheet px-6 py-5 ${id ? '' : 'hidden md:block'}`}>
        {id === 'write' ? (
          <WriteEmail answers={null} />
        ) : id === 'texts' ? (
          <Texts />
        ) : id === 'programs' ? (
          <ToldPrograms />
        ) : id ? (
          <OpenLetter key={id} id={id} />
        ) : (
          <p className="text-soft">{say('mailroom:choose')}</p>
        )}
      </section>
    </div>
  );
}

const VIEWS = ['html', 'text', 'headers'] as const;

function OpenLetter({ id }: { id: string }) {
  const { data: letter, error } = mailroomApi.useLetterQuery({ id });
  const [view, setView] = useState<(typeof VIEWS)[number]>('html');
  if (error) return <Trouble error={error} />;
  if (!letter) return <p className="text-soft">{say('mailroom:opening')}</p>;
  return (
    <article>
      <p className="md:hidden">
        <Link to="/mailroom">{say('mailroom:allEmails')}</Link>
      </p>
      <h2 className="text-[21px]">{letter.subject}</h2>
      <p className="mt-1 text-soft">{say('mailroom:to', { reader: readerOf(letter.to), at: letter.receivedAt })}</p>
      <div className="mt-4 flex gap-5 border-b border-rule-strong">
        {VIEWS.map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={view === each}
            onClick={() => setView(each)}
            className={`border-b-[3px] pb-1.5 ${view === each ? 'border-green font-semibold' : 'border-transparent text-soft'}`}
          >
            {say(`mailroom:view.${each}`)}
          </button>
        ))}
      </div>
      {view === 'html' ? <LetterBody html={letter.html} /> : null}
      {view === 'text' ? (
        <pre className="mt-4 font-mono text-[13px] break-words whitespace-pre-wrap">{letter.text}</pre>
      ) : null}
      {view === 'headers' ? (
        <dl className="mt-4 grid grid-cols-[12rem_1fr] font-mono text-[12.5px]">
          {letter.headers.map((header) => (
            <div key={header.name + header.value} className="contents">
              <dt className="border-b border-rule py-1 text-soft">{header.name}</dt>
              <dd className="border-b border-rule py-1 break-all">{header.value}</dd>
            </div>
          ))}
        </dl>
      ) : null}
      <section className="mt-6 border-t border-rule-strong pt-4">
        <h3 className="font-semibold">{say('mailroom:reply', { reader: readerOf(letter.to) })}</h3>
        <WriteEmail answers={id} />
      </section>
    </article>
  );
}

/** An email to the desk, in the place of somebody’s mail program: an answer, or one of its own. */
function WriteEmail({ answers }: { answers: string | null }) {
  const [send, { isLoading, isSuccess, error }] = mailroomApi.useWriteEmailMutation();
  const [from, setFrom] = useState('');
  const [subject, setSubject] = useState('');
  const [text, setText] = useState('');
  return (
    <form
      noValidate
      className="max-w-[44rem]"
      onSubmit={(event) => {
        event.preventDefault();
        void send({ body: { from, subject, text, answers } })
          .unwrap()
          .then(() => setText(''))
          .catch(() => undefined);
      }}
    >
      {answers === null ? <h2 className="text-[21px]">{say('mailroom:write')}</h2> : null}
      <p className="mb-3 text-soft">{say('mailroom:replyHint')}</p>
      {answers === null ? (
        <>
          <TextLine
            {...{ id: 'from', label: say('mailroom:yourAddress'), error, field: 'from' }}
            {...{ value: from, change: setFrom, type: 'email' }}
          />
          <TextLine
            {...{ id: 'subject', label: say('mailroom:subject'), error, field: 'subject' }}
            {...{ value: subject, change: setSubject }}
          />
        </>
      ) : null}
      <label htmlFor="text" className="mt-3 block font-semibold">
        {say('mailroom:text')}
      </label>
      <textarea
        id="text"
        rows={4}
        className="input mt-1"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {error ? <Trouble error={error} /> : null}
      <div className="mt-3 flex items-center gap-4">
        <Button type="submit" disabled={isLoading || text.trim() === ''}>
          {say('mailroom:send')}
        </Button>
        <span role="status" className="text-soft">
          {isSuccess && text === '' ? say('mailroom:sent') : ''}
        </span>
      </div>
    </form>
  );
}

/** A letter's HTML in a frame of its own without scripts; its links open in this window. */
function LetterBody({ html }: { html: string }) {
  const [height, setHeight] = useState(480);
  const [frame, setFrame] = useState<HTMLIFrameElement | null>(null);
  useEffect(() => {
    const size = (): void => setHeight((frame?.contentDocument?.documentElement.scrollHeight ?? 460) + 20);
    frame?.addEventListener('load', size);
    return () => frame?.removeEventListener('load', size);
  }, [frame]);
  return (
    <iframe
      ref={setFrame}
      title={say('mailroom:theEmail')}
      sandbox="allow-same-origin allow-top-navigation-by-user-activation"
      srcDoc={html.replace(/<html[^>]*>/, '$&<base target="_top">')}
      className="mt-4 w-full max-w-[44rem] border border-rule bg-[#fffdf8]"
      style={{ height }}
    />
  );
}

const readerOf = (to: string): string => to.replace(/"/g, '');
