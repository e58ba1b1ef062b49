import type { AnswerOf } from '@tolvek/contract';
import type { Words } from '@tolvek/words';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { LiveText } from '../ui/LiveText.tsx';
import { Rich } from '../ui/Rich.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say, told } from '../wire/words.ts';
import { AddressLine } from './AddressLine.tsx';
import { frontDeskApi } from './endpoints.ts';
import { confirmed, isGone, leftToConfirm } from './waiting.ts';

/** After sending: the number and what follows, or the one step that is left. */
export function Sent({
  slug,
  sent,
  isUnnamed,
  again,
}: {
  slug: string;
  sent: AnswerOf<'submit'>;
  isUnnamed: boolean;
  /** Null where it is asked once. */
  again: (() => void) | null;
}) {
  useEffect(() => {
    scrollTo(0, 0);
    if (sent.state === 'to-confirm' && sent.sent !== null) leftToConfirm({ token: sent.sent, slug });
  }, [sent, slug]);
  if (sent.state === 'to-confirm')
    return (
      <section className="mt-6">
        <LeftToConfirm token={sent.sent} email={sent.email} />
        {again ? <Again again={again} /> : null}
      </section>
    );
  if (sent.state === 'changed')
    return (
      <section className="mt-6">
        <Head>{say(`desk:updated.${sent.is}`)}</Head>
        <p className="mt-2">
          <Rich
            text={`desk:updatedNext.${sent.is}`}
            filled={{ number: <b className="font-mono whitespace-nowrap">{sent.number}</b> }}
          />
        </p>
        <p className="mt-5 flex flex-wrap gap-6">
          <Link to="/">{say('common:toFrontDesk')}</Link>
        </p>
      </section>
    );
  return (
    <section className="mt-6">
      <Head>{say('desk:thanksArrived')}</Head>
      <p className="mt-2">
        <Rich text="desk:yourNumber" filled={{ number: <b className="font-mono">{sent.number}</b> }} />{' '}
        {sent.due ? `${say('desk:planToFinish', { due: sent.due })} ` : ''}
        {sent.confirms ? (
          <Rich text="desk:confirmToFollow" filled={{ email: <b className="break-words">{sent.confirms}</b> }} />
        ) : (
          say(isUnnamed ? 'desk:nobodyToTell' : 'desk:linkByEmail')
        )}
      </p>
      <Says says={sent.says} />
      <p className="mt-5 flex flex-wrap gap-6">
        {isUnnamed || sent.confirms ? null : <Link to={`/my/${sent.number}`}>{say('desk:followRequest')}</Link>}
        <Link to="/">{say('common:toFrontDesk')}</Link>
      </p>
      {again ? <Again again={again} /> : null}
    </section>
  );
}

/** The words of a form once a request came in by it. */
export const Says = ({ says }: { says: Words | null | undefined }) =>
  says === null || says === undefined ? null : (
    <p className="mt-4 border-l-2 border-green pl-3.5 whitespace-pre-line">
      <LiveText text={told(says)} />
    </p>
  );

const Again = ({ again }: { again: () => void }) => (
  <p className="mt-5">
    <button type="button" className="text-green underline" onClick={again}>
      {say('desk:sendAnother')}
    </button>
  </p>
);

/** Read first, wherever the page was before. */
function Head({ children }: { children: ReactNode }) {
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus(), []);
  return (
    <h2 ref={head} tabIndex={-1} className="text-[22px] outline-none">
      {children}
    </h2>
  );
}

/** What became of what was sent from outside, for whoever sent it: on the device it was sent from, or by its address. */
export function SentPage() {
  const { token = '' } = useParams();
  const { data, error, refetch } = frontDeskApi.useSentStateQuery(
    { token },
    { pollingInterval: 10_000, skipPollingIfUnfocused: true },
  );
  useTitle(data ? say('desk:requestState', { form: data.form }) : '');
  useEffect(() => {
    if (data?.state === 'arrived' || isGone(error)) confirmed(token);
  }, [data, error, token]);
  if (error)
    return (
      <Column>
        <Trouble error={error} again={refetch} />
      </Column>
    );
  if (!data) return <Column>{null}</Column>;
  return (
    <Column>
      <h1 className="text-[28px]">{data.form}</h1>
      <section className="mt-5">
        {data.state === 'to-confirm' ? (
          <LeftToConfirm token={token} email={data.email} until={data.until} />
        ) : (
          <>
            <Head>{say('desk:thanksArrived')}</Head>
            <p className="mt-2">
              <Rich text="desk:arrivedNumber" filled={{ number: <b className="font-mono">{data.number}</b> }} />{' '}
              {data.due ? `${say('desk:planToFinish', { due: data.due })} ` : ''}
              {say('desk:followByEmail')}
            </p>
          </>
        )}
      </section>
    </Column>
  );
}

/** The one step that is left: to which address the email went, how to correct it, how to get another. */
function LeftToConfirm({ token, email, until }: { token: string | null; email: string; until?: string }) {
  const { data: me } = meApi.useMeQuery();
  const [address, setAddress] = useState(email);
  const [send, { data: sent, error, isLoading }] = frontDeskApi.useSendAgainMutation();
  const now = sent?.email ?? email;
  const post = (): void => {
    if (token !== null) void send({ token, body: { email: address } });
  };
  return (
    <>
      <Head>{say('desk:oneStepLeft')}</Head>
      <p className="mt-2" role="status">
        <Rich
          text={sent ? 'desk:emailSentAgain' : 'desk:emailSentTo'}
          filled={{ email: <b className="break-words">{now}</b> }}
        />{' '}
        {until ? say('desk:openAndClick', { until }) : say('desk:openAndClickDays')}
      </p>
      {token === null ? null : (
        <div className="mt-6 border-l-2 border-green pl-3.5">
          <p>
            {say('desk:noEmail')} <span className="text-soft">{say('desk:yourAnswersSafe')}</span>
          </p>
          <label htmlFor="sent-email" className="mt-3 block font-semibold">
            {say('desk:emailAddressNow')}
          </label>
          <AddressLine
            id="sent-email"
            address={address}
            set={setAddress}
            button={say('desk:sendEmailAgain')}
            send={post}
            isSending={isLoading}
            error={error}
          />
        </div>
      )}
      <p className="mt-6 flex flex-wrap gap-6">
        {until || token === null ? null : <Link to={`/sent/${token}`}>{say('desk:showState')}</Link>}
        {me?.demo ? <Link to="/mailroom">{say('desk:openMailroom')}</Link> : null}
      </p>
    </>
  );
}
