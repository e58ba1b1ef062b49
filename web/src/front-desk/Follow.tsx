import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { RawAnswers } from '@tolvek/core/register';
import { lazy, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { Agreed } from '../ui/Agreed.tsx';
import { Column } from '../ui/Column.tsx';
import { Beside } from '../ui/LiveText.tsx';
import { Trace } from '../ui/Trace.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { Messages, Reply } from './Messages.tsx';
import { OwnAnswers } from './OwnAnswers.tsx';
import { OwnCourse } from './OwnCourse.tsx';
import { ProveAgain } from './ProveAgain.tsx';
import { TakeAway } from './TakeAway.tsx';
import { ToFill } from './ToFill.tsx';
import { WhoDecides } from './WhoDecides.tsx';
import { Withdraw } from './Withdraw.tsx';

const NamedActions = lazy(() => import('../ui/NamedActions.tsx'));
const OwnLinks = lazy(() => import('./OwnLinks.tsx'));
const OwnProposals = lazy(() => import('./OwnProposals.tsx'));

/** An outside requester's own request, by the link in their letters. */
export function Follow() {
  const { token = '' } = useParams();
  const { data, error, refetch } = frontDeskApi.useFollowQuery(
    { token },
    { pollingInterval: 30_000, skipPollingIfUnfocused: true },
  );
  const [send, state] = frontDeskApi.useFollowMessageMutation();
  const [change] = frontDeskApi.useChangeFollowedMutation();
  const [withdraw] = frontDeskApi.useWithdrawFollowedMutation();
  const [endLinks] = frontDeskApi.useEndOtherLinksMutation();
  const [renew, renewed] = frontDeskApi.useRenewLinkMutation();
  const [act] = frontDeskApi.useActFollowedMutation();
  const [changing] = frontDeskApi.useChangingFollowedMutation();
  if (renewed.isSuccess)
    return (
      <Column>
        <h1 className="text-[28px]">{say('desk:newLinkComes')}</h1>
        <p className="mt-3">{say('desk:newLinkHere')}</p>
      </Column>
    );
  return (
    <OwnRequest
      request={data}
      fileAt={(id) => `/api/follow/${token}/files/${id}`}
      error={error}
      again={refetch}
      change={(changes, version) => change({ token, version, body: { changes } }).unwrap()}
      withdraw={(reason, version) => withdraw({ token, version, body: { reason } }).unwrap()}
      endLinks={(only) => endLinks({ token, body: { only: only && [...only] } }).unwrap()}
      renewLink={() => renew({ token }).unwrap()}
      act={(action, body) => act({ token, action, body }).unwrap()}
      changing={(fields) => changing({ token, body: { fields: [...fields] } })}
      send={(text, files) => send({ token, body: { text, files: [...files] } }).unwrap()}
      filesTo={`/api/follow/${encodeURIComponent(token)}/message-files`}
      sendError={state.error}
    />
  );
}

/** A staff requester's own request. */
export function MyRequest() {
  const { number = '' } = useParams();
  const { data, error, refetch } = frontDeskApi.useMyRequestQuery(
    { number },
    { pollingInterval: 30_000, skipPollingIfUnfocused: true },
  );
  const [send, state] = frontDeskApi.useMyMessageMutation();
  const [change] = frontDeskApi.useChangeMineMutation();
  const [withdraw] = frontDeskApi.useWithdrawMineMutation();
  const [endLinks] = frontDeskApi.useEndMyLinksMutation();
  const [renew] = frontDeskApi.useRenewMyLinkMutation();
  const [act] = frontDeskApi.useActOnMineMutation();
  const [changing] = frontDeskApi.useChangingMineMutation();
  return (
    <OwnRequest
      request={data}
      fileAt={(id) => `/api/requests/${number}/files/${id}`}
      error={error}
      again={refetch}
      change={(changes, version) => change({ number, version, body: { changes } }).unwrap()}
      withdraw={(reason, version) => withdraw({ number, version, body: { reason } }).unwrap()}
      endLinks={(only) => endLinks({ number, body: { only: only && [...only] } }).unwrap()}
      renewLink={() => renew({ number }).unwrap()}
      act={(action, body) => act({ number, action, body }).unwrap()}
      changing={(fields) => changing({ number, body: { fields: [...fields] } })}
      send={(text, files) => send({ number, body: { text, files: [...files] } }).unwrap()}
      filesTo={`/api/my/requests/${encodeURIComponent(number)}/message-files`}
      sendError={state.error}
      isSignedIn
    />
  );
}

interface OwnRequestProps {
  readonly request: AnswerOf<'follow'> | undefined;
  readonly fileAt: (id: string) => string;
  readonly error: unknown;
  readonly again: () => void;
  readonly change: (changes: RawAnswers, version: number) => Promise<unknown>;
  readonly withdraw: (reason: string, version: number) => Promise<unknown>;
  readonly send: (text: string, files: readonly string[]) => Promise<unknown>;
  /** Where files for a message are sent to. */
  readonly filesTo: string;
  readonly sendError: unknown;
  /** Ends links of these ids; null: all, but for the one they came by. */
  readonly endLinks: (only: readonly string[] | null) => Promise<unknown>;
  readonly renewLink: () => Promise<unknown>;
  readonly act: (action: string, body: BodyOf<'actOnMine'>) => Promise<unknown>;
  readonly changing: (fields: readonly string[]) => unknown;
  readonly isSignedIn?: boolean;
}

function OwnRequest({
  request,
  fileAt,
  error,
  again,
  change,
  withdraw,
  send,
  filesTo,
  sendError,
  endLinks,
  renewLink,
  act,
  changing,
  isSignedIn = false,
}: OwnRequestProps) {
  useTitle(request ? `${request.number} ${told(request.subject)}` : '');
  if (!request)
    return (
      <Column>
        {error && problemOf(error).type.endsWith(':prove') ? (
          <ProveAgain />
        ) : error ? (
          <Trouble error={error} again={again} />
        ) : (
          <p className="text-soft">{say('desk:openingRequest')}</p>
        )}
      </Column>
    );
  return (
    <Column>
      <p className="text-soft">
        <span className="font-mono text-[14px]">{request.number}</span> · {request.form}
        {request.askedBy ? ` · ${say('desk:askedBy', { name: request.askedBy })}` : ''}
        {request.onBehalf ? ` · ${say('desk:askedFor', { name: request.onBehalf })}` : ''}
      </p>
      <h1 className="mt-1 text-[28px]">{told(request.subject)}</h1>
      <p className="mt-3 text-[18px]">
        <b>{request.stage}</b>
        {request.promise ? <span className="text-soft"> · {told(request.promise)}</span> : null}
        {request.together ? <span className="block text-soft">{say('desk:together')}</span> : null}
      </p>
      {request.question ? (
        <div className="mt-4 border-l-[3px] border-brass-mark pl-3">
          <p className="whitespace-pre-line">{say('desk:asksYou', request.question)}</p>
          <p className="mt-1.5">
            <a href="#message">{say('desk:answerNow')}</a>
          </p>
        </div>
      ) : null}
      <div className="mt-5">
        <Trace hops={request.hops} />
      </div>
      <OwnCourse course={request.course} />
      <WhoDecides steps={request.deciding} />
      <ToFill forms={request.toFill} isAbout />
      {request.proposals.length > 0 ? (
        <Suspense>
          <OwnProposals proposals={request.proposals} mayEnd={isSignedIn} again={again} />
        </Suspense>
      ) : null}
      <Beside
        words={request.words.map((each) => told(each))}
        acts={(at) => {
          const here = request.actions.filter((action) => action.at === at);
          return here.length === 0 ? null : (
            <Suspense>
              <NamedActions actions={here} number={request.number} act={act} />
            </Suspense>
          );
        }}
      />
      <h2 className="section-head mt-8">{say('desk:yourAnswers')}</h2>
      <OwnAnswers {...{ request, fileAt, again, changing }} change={(changes) => change(changes, request.version)} />
      <Agreed consent={request.consent} />
      <h2 className="section-head mt-8">{say('desk:messages')}</h2>
      {request.messages.length === 0 ? <p className="py-3 text-soft">{say('desk:noMessages')}</p> : null}
      <Messages messages={request.messages} fileAt={fileAt} />
      {sendError ? (
        <div className="mt-4">
          <Trouble error={sendError} />
        </div>
      ) : null}
      <Reply label={say('desk:writeToUs')} {...{ send, filesTo }} />
      <TakeAway request={request} />
      {request.again ? (
        <p className="mt-6">
          <Link
            to={`/ask/${request.again}`}
            state={{ like: { number: request.number, values: request.values.fields } }}
          >
            {say('desk:askAgain')}
          </Link>
        </p>
      ) : null}
      <Suspense>
        <OwnLinks links={request.links} isOneOfThem={!isSignedIn} end={endLinks} renew={renewLink} />
      </Suspense>
      {request.mayWithdraw ? <Withdraw withdraw={(reason) => withdraw(reason, request.version)} /> : null}
    </Column>
  );
}
