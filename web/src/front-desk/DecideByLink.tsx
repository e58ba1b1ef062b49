import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { useParams } from 'react-router';
import { Column } from '../ui/Column.tsx';
import { DecisionForm } from '../ui/DecisionForm.tsx';
import { Facts } from '../ui/Facts.tsx';
import { Beside } from '../ui/LiveText.tsx';
import { Trace } from '../ui/Trace.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { NotOpened } from './NotOpened.tsx';

/** What is said once it is decided, or put back. */
const DECIDED = {
  approved: { title: 'desk:approved', next: 'desk:approvedGoesOn' },
  refused: { title: 'desk:notApproved', next: 'desk:refusedEnds' },
  returned: { title: 'desk:returned', next: 'desk:returnedWaits' },
} as const;

/**
 * A decision by the link in a letter: everything needed in view, on a phone, without signing in.
 */
export function DecideByLink() {
  const { token = '' } = useParams();
  const [decided, setDecided] = useState<AnswerOf<'decideByLink'> | null>(null);
  const { data, error } = frontDeskApi.useDecisionLinkQuery({ token }, { skip: decided !== null });
  const [decide, { isLoading, error: failed }] = frontDeskApi.useDecideByLinkMutation();
  useTitle(data ? say('desk:approveOrRefuse', { subject: data.subject }) : say('desk:approveOrRefuseTitle'));
  if (decided) {
    return (
      <Column>
        <h1 className="text-[28px]">{say(decided.more ? 'desk:heard' : DECIDED[decided.state].title)}</h1>
        <p className="mt-3">
          {say(decided.more ? 'desk:othersDecide' : DECIDED[decided.state].next, { number: decided.number })}
        </p>
      </Column>
    );
  }
  if (error || !data) return <NotOpened error={error} />;
  return (
    <Column>
      <p className="text-soft">
        <span className="font-mono text-[14px]">{data.number}</span> · {data.form}
      </p>
      <h1 className="mt-1 text-[28px]">{told(data.subject)}</h1>
      <p className="mt-2 text-soft">
        {say('desk:sentThis', { requester: data.requester })} {say('desk:pleaseDecide', { approver: data.approver })}{' '}
        {data.until
          ? say('desk:decideBy', { until: data.until })
          : data.due
            ? say('desk:dueAt', { due: data.due })
            : ''}
      </p>
      <div className="mt-5">
        <Trace hops={data.hops} />
      </div>
      <div className="mt-6">
        <Beside words={data.words.map((each) => told(each))} />
        <Facts facts={data.values.fields.filter((field) => field.shown !== '')} />
      </div>
      <div className="mt-7">
        <DecisionForm
          seen={data.seen}
          mayReturn={data.mayReturn}
          busy={isLoading}
          error={failed}
          decide={async ({ key: once, ...body }) => {
            const result = await decide({ token, once, body });
            if (!('error' in result) && result.data) setDecided(result.data);
          }}
        />
      </div>
    </Column>
  );
}
