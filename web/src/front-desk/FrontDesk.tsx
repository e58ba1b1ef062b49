import type { AnswerOf } from '@tolvek/contract';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { Rich } from '../ui/Rich.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say, told, useLanguage } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { fits } from './fits.ts';
import { GivenList } from './GivenList.tsx';
import { byStage, underHeadings } from './home.ts';
import { NotConfirmed } from './NotConfirmed.tsx';
import { ToDecide } from './ToDecide.tsx';
import { ToFill } from './ToFill.tsx';
import { Waits } from './Waits.tsx';

/** From so many forms on they can be searched. */
const MANY = 5;

/** What do you need? The forms one can ask with, beside what one asked before. */
export function FrontDesk() {
  useTitle('');
  const { data: me } = meApi.useMeQuery();
  const { data, error, refetch } = frontDeskApi.useFrontDeskQuery();
  const [sought, setSought] = useState('');
  const language = useLanguage();
  if (error)
    return (
      <Column>
        <Trouble error={error} again={refetch} />
      </Column>
    );
  if (!data || !me)
    return (
      <Column>
        <p className="text-soft">{say('desk:openingDesk')}</p>
      </Column>
    );
  const waiting = data.mine.filter((request) => request.waits);
  const open = data.mine.filter((request) => !request.finished && !request.waits);
  const forms = data.forms.filter(({ title, intro, topic }) => fits(sought, `${title} ${intro} ${topic}`));
  const topics = underHeadings(forms, language);
  const finished = data.mine.filter((request) => request.finished);
  return (
    <Column>
      <h1 className="text-[28px]">{say('desk:whatNeeded')}</h1>
      <p className="mt-1.5 text-soft">{[me.desk.name, me.desk.organisation].filter(Boolean).join(', ')}</p>
      <NotConfirmed />
      {waiting.length > 0 ? (
        <>
          <h2 className="section-head mt-7">{say('desk:waitsForAnswer')}</h2>
          <ul>
            {waiting.map((request) => (
              <Waits
                key={request.number}
                title={told(request.subject)}
                to={`/my/${request.number}`}
                step={say('desk:answerNow')}
                named={say('desk:answerNamed', { number: request.number })}
              >
                <span className="text-soft">
                  <span className="font-mono text-[13px]">{request.number}</span> · {request.stage}
                </span>
                {request.question ? (
                  <span className="mt-1 line-clamp-3 block">{say('desk:asksYou', request.question)}</span>
                ) : null}
              </Waits>
            ))}
          </ul>
        </>
      ) : null}
      <ToFill forms={data.toFill} />
      <ToDecide waiting={data.toDecide} />
      <GivenList given={data.given} />
      {data.begun.length > 0 ? (
        <>
          <h2 className="section-head mt-7">{say('desk:unfinishedForms')}</h2>
          <ul>
            {data.begun.map((begun) => (
              <li key={begun.slug} className="flex items-baseline justify-between gap-3 border-b border-rule py-2.5">
                <span>{begun.title}</span>
                <Link to={`/ask/${begun.slug}`} aria-label={say('desk:continueNamed', { title: begun.title })}>
                  {say('desk:continueForm')}
                </Link>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <h2 className="section-head mt-7">{say('desk:startRequest')}</h2>
      {data.forms.length > MANY ? (
        <input
          type="search"
          aria-label={say('desk:findForm')}
          placeholder={say('desk:findForm')}
          className="input mt-3"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      ) : null}
      {data.forms.length > 0 && forms.length === 0 ? (
        <p className="py-3 text-soft">{say('desk:noFormFits', { sought })}</p>
      ) : null}
      {data.forms.length === 0 ? <p className="py-3 text-soft">{say('desk:noForms')}</p> : null}
      {topics.map(({ head, items }) => (
        <Fragment key={head}>
          {topics.length > 1 ? (
            <h3 className="mt-5 text-[15px] font-semibold text-soft">{head || say('desk:otherForms')}</h3>
          ) : null}
          <ul className="sm:grid sm:grid-cols-2 sm:gap-x-7">
            {items.map((form) => (
              <li key={form.slug} className="border-b border-rule py-3.5">
                <Link to={`/ask/${form.slug}`} className="subject text-[19px] no-underline hover:underline">
                  {form.title}
                </Link>
                <p className="mt-0.5 text-soft">{form.refusal === null ? form.intro : told(form.refusal)}</p>
              </li>
            ))}
          </ul>
        </Fragment>
      ))}
      {me.person ? (
        <>
          <h2 className="section-head mt-8">{say('desk:yourRequests')}</h2>
          {data.mine.length === 0 ? <p className="py-3 text-soft">{say('desk:noRequests')}</p> : null}
          {byStage(open).map(({ head, items }) => (
            <Fragment key={head}>
              {head === '' ? null : (
                <h3 className="mt-5 text-[15px] font-semibold text-soft">
                  {say('desk:atStage', { stage: head, n: items.length })}
                </h3>
              )}
              <RequestList requests={items} under={head} />
            </Fragment>
          ))}
          {finished.length > 0 ? (
            <details className="mt-4">
              <summary className="text-soft">{say('desk:finishedRequests', { n: finished.length })}</summary>
              <RequestList requests={finished} />
            </details>
          ) : null}
          {data.shared.length > 0 ? (
            <>
              <h2 className="section-head mt-8">{say('sharedPage:withYou')}</h2>
              <ul>
                {data.shared.map(({ id, name, by, until }) => (
                  <li key={id} className="border-b border-rule py-2.5">
                    <Link to={`/shared/${id}`}>{name}</Link>
                    <span className="block text-soft">{say('sharedPage:byUntil', { name: by, day: until })}</span>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
        </>
      ) : (
        <p className="mt-8 text-soft">
          <Rich text="desk:sentBefore" filled={{ signIn: <Link to="/come-in">{say('desk:signInByEmail')}</Link> }} />
        </p>
      )}
    </Column>
  );
}

interface RequestListProps {
  readonly requests: readonly AnswerOf<'frontDesk'>['mine'][number][];
  /** The stage they stand under, which each need not say again. */
  readonly under?: string;
}

function RequestList({ requests, under = '' }: RequestListProps) {
  return (
    <ul>
      {requests.map((request) => (
        <li key={request.number} className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-rule py-3">
          <Link to={`/my/${request.number}`} className="subject text-[17px] no-underline hover:underline">
            {told(request.subject)}
          </Link>
          <span className="font-mono text-[13px] text-soft">{request.number}</span>
          <span className="col-span-2 text-soft">
            {[...(under === '' ? [request.stage] : []), ...(request.promise ? [told(request.promise)] : [])].join(
              ' · ',
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}
