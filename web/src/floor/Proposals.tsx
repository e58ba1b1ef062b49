import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { DecisionForm } from '../ui/DecisionForm.tsx';
import { ProposedChanges } from '../ui/ProposedChanges.tsx';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type Proposal = AnswerOf<'sheet'>['proposals'][number];

/** Changes of the request that somebody sent by a form and that wait to be accepted: the old values count until then. */
export const Proposals = ({ sheet: { number, proposals } }: { sheet: AnswerOf<'sheet'> }) =>
  proposals.map((proposal) => <Waiting key={proposal.id} number={number} proposal={proposal} />);

function Waiting({ number, proposal }: { number: string; proposal: Proposal }) {
  const { id, at, by, form, seen, whyNot } = proposal;
  const [accept, { error: notAccepted, isLoading: accepting }] = floorApi.useAcceptProposalMutation();
  const [refuse, { error: notRefused, isLoading: refusing }] = floorApi.useRefuseProposalMutation();
  return (
    <section
      className="mt-5 border-l-[3px] border-brass-mark bg-brass-wash px-4 py-3"
      aria-label={say('floor:proposal')}
    >
      <h3 className="font-semibold">{say('floor:proposal')}</h3>
      <p className="text-soft">{say('floor:proposalBy', { by, form, at })}</p>
      <ProposedChanges proposal={proposal} />
      <div className="mt-3">
        {whyNot === null ? (
          <DecisionForm
            id={`proposal-${id}`}
            seen={seen}
            isChange
            busy={accepting || refusing}
            error={notAccepted ?? notRefused}
            decide={async ({ verdict, comment }) => {
              const done =
                verdict === 'approve'
                  ? await accept({ number, id, body: { seen, comment } })
                  : await refuse({ number, id, body: { reason: comment } });
              if (!('error' in done))
                toast(say(verdict === 'approve' ? 'floor:proposalAccepted' : 'floor:proposalRefused'));
            }}
          />
        ) : (
          <p>{told(whyNot)}</p>
        )}
      </div>
    </section>
  );
}
