import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { DecisionForm } from '../ui/DecisionForm.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Beside } from '../ui/LiveText.tsx';
import { news } from '../ui/news.ts';
import { Trace } from '../ui/Trace.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { Messages, Reply } from './Messages.tsx';
import { OwnAnswers } from './OwnAnswers.tsx';
import { ProveWho } from './ProveWho.tsx';

/** A request that somebody from outside was asked to handle or to decide: they sign in by a code, and see this one. */
export function Given() {
  const { number = '' } = useParams();
  const { data: me } = meApi.useMeQuery();
  const isKnown = Boolean(me?.person);
  const { data, error, refetch } = frontDeskApi.useGivenQuery(
    { number },
    { skip: !isKnown, pollingInterval: 30_000, skipPollingIfUnfocused: true },
  );
  const [done, setDone] = useState<string | null>(null);
  useTitle(data ? `${data.number} ${told(data.subject)}` : say('desk:given'));
  if (done !== null)
    return (
      <Column>
        <h1 className="text-[28px]">{done}</h1>
        <p className="mt-3">{say('desk:givenOver', { number })}</p>
        <p className="mt-5">
          <Link to="/">{say('common:toFrontDesk')}</Link>
        </p>
      </Column>
    );
  if (me && !me.person) return <ComeInFirst number={number} />;
  if (error && !data)
    return (
      <Column>
        <Trouble error={error} again={refetch} />
        {problemOf(error).status === 404 ? (
          <>
            <p className="mt-3">{say('desk:givenNot')}</p>
            <p className="mt-5">
              <Link to="/">{say('common:toFrontDesk')}</Link>
            </p>
          </>
        ) : null}
      </Column>
    );
  if (!data)
    return (
      <Column>
        <p className="text-soft">{say('desk:openingRequestFor')}</p>
      </Column>
    );
  return <GivenRequest request={data} again={refetch} finish={setDone} />;
}

/** Whoever is not signed in proves that the address is theirs to which the email went. */
function ComeInFirst({ number }: { number: string }) {
  return (
    <Column>
      <h1 className="text-[28px]">{say('desk:givenTitle')}</h1>
      <p className="mt-3">{say('desk:givenProve', { number })}</p>
      <ProveWho back={`/given/${number}`} />
    </Column>
  );
}

interface GivenRequestProps {
  readonly request: AnswerOf<'given'>;
  readonly again: () => void;
  /** Says what has come of it, where it is not theirs any more. */
  readonly finish: (said: string) => void;
}

function GivenRequest({ request, again, finish }: GivenRequestProps) {
  const { number, version, handles, decision } = request;
  const [change] = frontDeskApi.useChangeGivenMutation();
  const [sayIt, saying] = frontDeskApi.useSayGivenMutation();
  const [to, setTo] = useState<'internal' | 'requester'>('internal');
  const fileAt = (id: string): string => `/api/requests/${number}/files/${id}`;
  return (
    <Column>
      <p className="text-soft">
        <span className="font-mono text-[14px]">{number}</span> · {request.form}
      </p>
      <h1 className="mt-1 text-[28px]">{told(request.subject)}</h1>
      <p className="mt-2 text-soft">
        {request.requester ? say('desk:sentThis', { requester: request.requester }) : ''}{' '}
        {say(handles ? 'desk:youHandle' : 'desk:youDecide')}{' '}
        {decision?.until
          ? say('desk:decideBy', { until: decision.until })
          : request.due
            ? say('desk:dueAt', { due: request.due })
            : ''}
      </p>
      <p className="mt-3 text-[18px]">
        <b>{request.stage}</b>
      </p>
      <div className="mt-5">
        <Trace hops={request.hops} />
      </div>
      <Beside words={request.words.map((each) => told(each))} />
      {decision ? <Deciding {...{ number, decision, finish, again }} /> : null}
      {handles ? <WaysOn {...{ request, again, finish }} /> : null}
      <h2 className="section-head mt-8">{say('desk:givenAnswers')}</h2>
      {request.values.fields.length === 0 ? <p className="py-3 text-soft">{say('desk:givenNoAnswers')}</p> : null}
      <OwnAnswers
        request={{ ...request, atWork: [], opensToChange: false }}
        {...{ fileAt, again }}
        change={(changes) => change({ number, version, body: { changes } }).unwrap()}
        changing={() => undefined}
      />
      {handles ? (
        <>
          <h2 className="section-head mt-8">{say('desk:messages')}</h2>
          {request.messages.length === 0 ? <p className="py-3 text-soft">{say('desk:givenNoMessages')}</p> : null}
          <Messages messages={request.messages} fileAt={fileAt} />
          {saying.error ? (
            <div className="mt-4">
              <Trouble error={saying.error} />
            </div>
          ) : null}
          {request.mayWrite ? (
            <fieldset className="mt-4">
              <legend className="sr-only">{say('desk:givenTo')}</legend>
              {(['internal', 'requester'] as const).map((each) => (
                <label key={each} className="flex min-h-11 items-center gap-2.5">
                  <input
                    type="radio"
                    name="given-to"
                    className="accent-green"
                    checked={to === each}
                    onChange={() => setTo(each)}
                  />
                  {each === 'internal'
                    ? say('desk:givenTo.internal')
                    : say('desk:givenTo.requester', { name: request.requester })}
                </label>
              ))}
            </fieldset>
          ) : null}
          <Reply
            label={say(to === 'internal' ? 'desk:givenNote' : 'desk:givenMessage')}
            send={(text, files) =>
              sayIt({ number, body: { text, visibility: to, files: [...files] } })
                .unwrap()
                .then(again)
            }
            filesTo={`/api/requests/${encodeURIComponent(number)}/message-files`}
          />
        </>
      ) : null}
    </Column>
  );
}

/** What came of a decision, for whoever made it. */
const DECIDED = {
  approved: 'desk:approved',
  refused: 'desk:notApproved',
  returned: 'desk:returned',
} as const;

interface DecidingProps extends Pick<GivenRequestProps, 'again' | 'finish'> {
  readonly number: string;
  readonly decision: NonNullable<AnswerOf<'given'>['decision']>;
}

function Deciding({ number, decision, again, finish }: DecidingProps) {
  const [decide, { isLoading, error }] = frontDeskApi.useDecideGivenMutation();
  return (
    <div className="mt-6 border-l-[3px] border-brass-mark pl-3.5">
      <p className="font-semibold">{say('desk:stepAsks', { step: decision.step })}</p>
      <DecisionForm
        seen={decision.seen}
        mayReturn={decision.mayReturn}
        busy={isLoading}
        error={error}
        decide={async ({ key: once, ...body }) => {
          const result = await decide({ number, once, body });
          if ('error' in result) return;
          if (result.data.state === 'returned') again();
          else finish(say(result.data.more ? 'desk:heard' : DECIDED[result.data.state]));
        }}
      />
    </div>
  );
}

/** Where whoever handles it can move it on to, and back to the team. */
function WaysOn({ request: { number, version, moves }, again, finish }: GivenRequestProps) {
  const [move, moving] = frontDeskApi.useMoveGivenMutation();
  const [giveBack] = frontDeskApi.useGiveBackMutation();
  const [isOpen, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [error, setError] = useState<unknown>(null);
  const go = async (stage: string, label: string): Promise<void> => {
    setError(null);
    const done = await move({ number, version, body: { stage } });
    if ('error' in done) setError(done.error);
    else news(say('desk:givenMoved', { stage: label }));
    again();
  };
  const hand = async (): Promise<void> => {
    setError(null);
    try {
      await giveBack({ number, version, body: { reason } }).unwrap();
      finish(say('desk:givenBack'));
    } catch (problem) {
      setError(problem);
    }
  };
  return (
    <div className="mt-6">
      {error && !isOpen ? <Trouble error={error} /> : null}
      <p className="flex flex-wrap items-center gap-3">
        {moves.map(({ key, label }) => (
          <Button key={key} className="min-h-11 px-5" disabled={moving.isLoading} onClick={() => void go(key, label)}>
            {say('desk:moveTo', { stage: label })}
          </Button>
        ))}
        <DialogFrame
          open={isOpen}
          onOpenChange={setOpen}
          reset={() => setError(null)}
          trigger={
            <button type="button" className="min-h-11 text-green underline">
              {say('desk:giveBack')}
            </button>
          }
          title={say('desk:giveBack')}
        >
          <p className="mt-3">{say('desk:giveBackSays')}</p>
          <label htmlFor="give-back-why" className="mt-4 block font-semibold">
            {say('desk:giveBackWhy')}
          </label>
          <textarea
            id="give-back-why"
            rows={3}
            maxLength={4_000}
            className="input mt-1.5"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
          {error ? <Trouble error={error} /> : null}
          <p className="mt-5">
            <Button look="main" className="min-h-11 px-5" onClick={() => void hand()}>
              {say('desk:giveBackNow')}
            </Button>
          </p>
        </DialogFrame>
      </p>
      {moves.length > 0 ? <p className="mt-2 text-[14px] text-soft">{say('desk:stagesRead')}</p> : null}
    </div>
  );
}
