import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { useParams } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { DecisionForm } from '../ui/DecisionForm.tsx';
import { Facts } from '../ui/Facts.tsx';
import { ProposedChanges } from '../ui/ProposedChanges.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { NotOpened } from './NotOpened.tsx';

/** A change that waits to be accepted, by the link in an email: what would change, what stands there, and the decision. */
export function AcceptByLink() {
  const { token = '' } = useParams();
  const [done, setDone] = useState<AnswerOf<'decideProposal'> | null>(null);
  const { data, error } = frontDeskApi.useProposalLinkQuery({ token }, { skip: done !== null });
  const [decide, { isLoading, error: failed }] = frontDeskApi.useDecideProposalMutation();
  useTitle(data ? say('desk:changeOf', { subject: data.subject }) : say('desk:aChange'));
  if (done)
    return (
      <Column>
        <h1 className="text-[28px]">{say(done.accepted ? 'desk:changeAccepted' : 'desk:changeRefused')}</h1>
        <p className="mt-3">{say(done.accepted ? 'desk:changeCounts' : 'desk:changeStays', { number: done.number })}</p>
      </Column>
    );
  if (error || !data) return <NotOpened error={error} />;
  const { proposal } = data;
  return (
    <Column>
      <p className="text-soft">
        <span className="font-mono text-[14px]">{data.number}</span> · {proposal.form}
      </p>
      <h1 className="mt-1 text-[28px]">{told(data.subject)}</h1>
      <p className="mt-2 text-soft">
        {say('desk:changeBy', { by: proposal.by, form: proposal.form, at: proposal.at })}
      </p>
      <div className="mt-4 border-l-[3px] border-brass-mark bg-brass-wash px-4 py-3">
        <ProposedChanges proposal={proposal} />
      </div>
      <h2 className="section-head mt-7">{say('desk:standsNow')}</h2>
      <Facts facts={data.values.fields.filter((field) => field.shown !== '')} />
      <div className="mt-7">
        {proposal.whyNot === null ? (
          <DecisionForm
            id={`proposal-${proposal.id}`}
            seen={proposal.seen}
            isChange
            busy={isLoading}
            error={failed}
            decide={async ({ verdict: said, comment, seen }) => {
              const verdict = said === 'approve' ? 'approve' : 'refuse';
              const result = await decide({ token, body: { verdict, comment, seen: seen ?? '' } });
              if (!('error' in result) && result.data) setDone(result.data);
            }}
          />
        ) : (
          <p>{told(proposal.whyNot)}</p>
        )}
      </div>
    </Column>
  );
}
