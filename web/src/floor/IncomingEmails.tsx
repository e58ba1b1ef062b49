import type { AnswerOf } from '@tolvek/contract';
import { bytesInWords } from '@tolvek/core/register';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type Email = AnswerOf<'incomingEmail'>;

const STATES = ['held', 'aside'] as const;

/** Emails that came to the desk and found no request: what becomes of them is said here. */
export function IncomingEmails() {
  useTitle(say('incoming:title'));
  const { id } = useParams();
  const [search] = useSearchParams();
  const state = search.get('state') === 'aside' ? 'aside' : 'held';
  const { data, error, refetch } = floorApi.useIncomingEmailsQuery(
    { query: { state } },
    { pollingInterval: 5_000, skipPollingIfUnfocused: true },
  );
  return (
    <div className="grid min-h-[calc(100dvh-46px)] grid-cols-1 md:h-[calc(100dvh-46px)] md:grid-cols-[minmax(18rem,26rem)_1fr]">
      <section className={`min-h-0 overflow-auto border-r border-rule px-5 pt-4 ${id ? 'hidden md:block' : ''}`}>
        <h1>{say('incoming:title')}</h1>
        <p className="text-soft">{data?.isRead === false ? say('incoming:notRead') : say('incoming:intro')}</p>
        <nav className="mt-3 flex gap-5 border-b border-rule-strong">
          {STATES.map((each) => (
            <Link
              key={each}
              to={each === 'held' ? '/floor/emails' : '/floor/emails?state=aside'}
              aria-current={state === each ? 'page' : undefined}
              className={`border-b-[3px] pb-1.5 no-underline ${state === each ? 'border-green font-semibold text-ink' : 'border-transparent text-soft'}`}
            >
              {say(`incoming:state.${each}`)}
              {each === 'held' && data && data.held > 0 ? ` (${data.held})` : ''}
            </Link>
          ))}
        </nav>
        {error ? (
          <div className="mt-4">
            <Trouble error={error} again={refetch} />
          </div>
        ) : null}
        {data?.emails.length === 0 ? <p className="py-5 text-soft">{say(`incoming:none.${state}`)}</p> : null}
        <ul>
          {data?.emails.map((email) => (
            <li
              key={email.id}
              className={`border-b border-rule ${email.id === id ? 'bg-sheet shadow-[inset_3px_0_var(--green)]' : ''}`}
            >
              <Link
                to={`/floor/emails/${email.id}${state === 'aside' ? '?state=aside' : ''}`}
                className="block px-2 py-2 text-ink no-underline"
              >
                <span className="flex justify-between gap-3">
                  <span className="truncate font-semibold">{email.name || email.address}</span>
                  <span className="flex-none text-[12.5px] text-soft tabular-nums">
                    <DeskMoment at={email.receivedAt} />
                  </span>
                </span>
                <span className="subject block truncate text-[15px]">{email.subject || say('incoming:noSubject')}</span>
                <span className="block truncate text-[13px] text-soft">{email.beginning}</span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <section className={`min-h-0 overflow-auto bg-sheet px-6 py-5 ${id ? '' : 'hidden md:block'}`}>
        {id ? <OpenEmail key={id} id={id} /> : <p className="text-soft">{say('incoming:choose')}</p>}
      </section>
    </div>
  );
}

function OpenEmail({ id }: { id: string }) {
  const { data: email, error } = floorApi.useIncomingEmailQuery({ id });
  const [isWhole, setIsWhole] = useState(false);
  if (error) return <Trouble error={error} />;
  if (!email) return null;
  const showsWhole = isWhole || email.text === '';
  return (
    <article className="max-w-[46rem]">
      <p className="md:hidden">
        <Link to="/floor/emails">{say('incoming:all')}</Link>
      </p>
      <h2 className="text-[21px]">{email.subject || say('incoming:noSubject')}</h2>
      <p className="mt-1 text-soft">{say('incoming:from', { name: senderOf(email), at: email.receivedAt })}</p>
      <WhyHere email={email} />
      {email.state === 'taken' ? null : (
        <>
          <p className="mt-4 border border-rule bg-paper px-4 py-3 break-words whitespace-pre-line">
            {showsWhole ? email.whole : email.text}
          </p>
          {email.text !== '' && email.text.trim() !== email.whole.trim() ? (
            <button type="button" className="mt-1 text-[13px] underline" onClick={() => setIsWhole(!isWhole)}>
              {say(isWhole ? 'incoming:new' : 'incoming:whole')}
            </button>
          ) : null}
          <Files email={email} />
        </>
      )}
      {email.state === 'held' ? <WhatBecomes email={email} /> : null}
      {email.state === 'aside' ? <TakeBack email={email} /> : null}
    </article>
  );
}

const senderOf = ({ name, address }: Pick<Email, 'name' | 'address'>): string =>
  name === '' || name === address ? address : `${name} <${address}>`;

const whyInWords = (why: NonNullable<Email['why']>, person: string): string =>
  why === 'may-not' || why === 'unproved' ? say(`incoming:why.${why}`, { person }) : say(`incoming:why.${why}`);

/** Why it did not find its request, or what became of it. */
function WhyHere({ email: { why, state, person, address, settled, about } }: { email: Email }) {
  if (state === 'taken')
    return about ? (
      <p className="mt-3">
        <Link to={`/floor/all/${about.number}`}>{say('incoming:part', { number: about.number })}</Link>
      </p>
    ) : (
      <p className="mt-3">{say('incoming:partGone')}</p>
    );
  if (state === 'aside')
    return <p className="mt-3 text-soft">{settled ? say('incoming:laidAside', settled) : say('incoming:automatic')}</p>;
  return (
    <div className="mt-3 border-l-[3px] border-brass-mark pl-3">
      {why ? <p>{whyInWords(why, person ?? address)}</p> : null}
      {about ? (
        <p>
          {say('incoming:seems')} <Link to={`/floor/all/${about.number}`}>{about.number}</Link>: {told(about.subject)}
        </p>
      ) : null}
    </div>
  );
}

function Files({ email: { id, files, leftOut } }: { email: Email }) {
  if (files.length + leftOut.length === 0) return null;
  return (
    <div className="mt-3">
      <h3 className="font-semibold">{say('incoming:files')}</h3>
      <ul>
        {files.map((file) => (
          <li key={file.id}>
            <a href={`/api/emails/${id}/files/${file.id}`}>{file.name}</a>{' '}
            <span className="text-[0.9em] text-soft">{bytesInWords(file.bytes)}</span>
          </li>
        ))}
      </ul>
      {leftOut.length > 0 ? (
        <p className="text-soft">{say('incoming:leftOut', { count: leftOut.length, files: leftOut })}</p>
      ) : null}
    </div>
  );
}

/** The three things that can become of an email. */
function WhatBecomes({ email }: { email: Email }) {
  const [layAside, { isLoading, error }] = floorApi.useLayEmailAsideMutation();
  const navigate = useNavigate();
  const aside = (): void =>
    void layAside({ id: email.id })
      .unwrap()
      .then(() => {
        toast(say('incoming:asideDone'));
        navigate('/floor/emails');
      })
      .catch(() => undefined);
  return (
    <section aria-labelledby="decide" className="mt-7">
      <h3 id="decide" className="section-head">
        {say('incoming:decide')}
      </h3>
      <Join email={email} />
      <MakeRequest email={email} />
      <div className="mt-6 border-t border-rule pt-4">
        <h4 className="font-semibold">{say('incoming:aside')}</h4>
        <p className="text-soft">{say('incoming:asideHint')}</p>
        {error ? <Trouble error={error} /> : null}
        <Button className="mt-2" disabled={isLoading} onClick={aside}>
          {say('incoming:asideNow')}
        </Button>
      </div>
    </section>
  );
}

function Join({ email }: { email: Email }) {
  const [number, setNumber] = useState(email.about?.number ?? '');
  const [as, setAs] = useState<'message' | 'note'>(
    email.about && email.person === email.about.requester ? 'message' : 'note',
  );
  const wanted = number.trim().toUpperCase();
  const isNumber = /^[A-Z][A-Z0-9]*-\d{3,}$/.test(wanted);
  const { currentData: sheet, error: none } = floorApi.useSheetQuery({ number: wanted }, { skip: !isNumber });
  const [join, { isLoading, error }] = floorApi.useJoinEmailMutation();
  const navigate = useNavigate();
  const requester = sheet?.requester?.name;
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void join({ id: email.id, body: { number: wanted, as } })
          .unwrap()
          .then((joined) => {
            toast(say('incoming:joined', joined));
            navigate(`/floor/all/${joined.number}`);
          })
          .catch(() => undefined);
      }}
    >
      <h4 className="font-semibold">{say('incoming:join')}</h4>
      <label htmlFor="join-number" className="mt-2 block">
        {say('incoming:number')} <span className="text-soft">{say('incoming:numberHint')}</span>
      </label>
      <div className="mt-1 flex flex-wrap items-baseline gap-3">
        <input
          id="join-number"
          className="input max-w-40"
          value={number}
          autoComplete="off"
          onChange={(event) => setNumber(event.target.value)}
        />
        {sheet ? <span>{told(sheet.subject)}</span> : null}
        {isNumber && none ? <span className="text-brick">{say('incoming:noSuch', { number: wanted })}</span> : null}
      </div>
      {email.theirs.length > 0 ? (
        <p className="mt-2 text-[13px]">
          {say('incoming:theirs', { person: email.person ?? '' })}{' '}
          {email.theirs.map((each, n) => (
            <span key={each.number}>
              {n > 0 ? ', ' : ''}
              <button
                type="button"
                className="underline"
                title={told(each.subject)}
                onClick={() => setNumber(each.number)}
              >
                {each.number}
              </button>
            </span>
          ))}
        </p>
      ) : null}
      <fieldset className="mt-3">
        {(['message', 'note'] as const).map((each) => (
          <label key={each} className="flex items-baseline gap-2 py-0.5">
            <input
              type="radio"
              className="accent-green"
              name="join-as"
              checked={as === each}
              onChange={() => setAs(each)}
            />
            <span>
              {each === 'note'
                ? say('incoming:as.note')
                : requester
                  ? say('incoming:as.message', { requester })
                  : say('incoming:as.messageOf')}
              {each === 'message' ? (
                <span className="block text-[13px] text-soft">{say('incoming:asMessageHint')}</span>
              ) : null}
            </span>
          </label>
        ))}
      </fieldset>
      {error ? <Trouble error={error} /> : null}
      <Button type="submit" look="main" className="mt-2" disabled={isLoading || !sheet}>
        {sheet ? say('incoming:joinNow', { number: wanted }) : say('incoming:joinNowNone')}
      </Button>
    </form>
  );
}

function MakeRequest({ email }: { email: Email }) {
  const [slug, setSlug] = useState('');
  const navigate = useNavigate();
  const { id, subject, text, whole } = email;
  const name = email.person ?? (email.name || email.address);
  return (
    <form
      className="mt-6 border-t border-rule pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        navigate(`/ask/${slug}`, { state: { byEmail: { id, name, subject, text: text || whole } } });
      }}
    >
      <h4 className="font-semibold">{say('incoming:ask')}</h4>
      <p className="text-soft">{say('incoming:askHint', { name })}</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <select
          aria-label={say('incoming:form')}
          className="input w-auto max-w-80"
          value={slug}
          onChange={(event) => setSlug(event.target.value)}
        >
          <option value="">{say('incoming:chooseForm')}</option>
          {email.forms.map((form) => (
            <option key={form.slug} value={form.slug}>
              {form.title}
            </option>
          ))}
        </select>
        <Button type="submit" disabled={slug === ''}>
          {say('incoming:askNow')}
        </Button>
      </div>
    </form>
  );
}

function TakeBack({ email: { id } }: { email: Email }) {
  const [hold, { isLoading, error }] = floorApi.useHoldEmailMutation();
  const navigate = useNavigate();
  return (
    <div className="mt-6">
      {error ? <Trouble error={error} /> : null}
      <Button
        disabled={isLoading}
        onClick={() =>
          void hold({ id })
            .unwrap()
            .then(() => navigate(`/floor/emails/${id}`))
            .catch(() => undefined)
        }
      >
        {say('incoming:back')}
      </Button>
    </div>
  );
}
