import type { AnswerOf } from '@tolvek/contract';
import { Button } from '../ui/Button.tsx';
import { ProposedChanges } from '../ui/ProposedChanges.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

interface OwnProposalsProps {
  readonly proposals: AnswerOf<'follow'>['proposals'];
  /** Whether they are signed in, and can take them back. */
  readonly mayEnd: boolean;
  readonly again: () => void;
}

/** Changes that somebody sent and that nobody has accepted yet: the old values count until then. */
export default function OwnProposals({ proposals, ...rest }: OwnProposalsProps) {
  return proposals.map((proposal) => <Waiting key={proposal.id} proposal={proposal} {...rest} />);
}

function Waiting({
  proposal,
  mayEnd,
  again,
}: Omit<OwnProposalsProps, 'proposals'> & { readonly proposal: AnswerOf<'follow'>['proposals'][number] }) {
  const [end, { error, isLoading }] = frontDeskApi.useEndProposalMutation();
  return (
    <section className="mt-6 border-l-2 border-green pl-3.5" aria-label={say('desk:yourChange')}>
      <p>{say('desk:alreadySent', { at: proposal.at })}</p>
      <ProposedChanges proposal={proposal} />
      {mayEnd ? (
        <p className="mt-3">
          <Button disabled={isLoading} onClick={() => void end({ id: proposal.id }).then(again)}>
            {say('desk:takeBackChange')}
          </Button>
        </p>
      ) : null}
      {error ? <Trouble error={error} /> : null}
    </section>
  );
}
