import type { AnswerOf } from '@tolvek/contract';
import { answersToSend } from '@tolvek/core/form';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import type { DraftEditing } from './useDraft.ts';
import { isAnybody, type ProofState } from './useProof.ts';

/** Sends what stands in the proof as a trial request: it goes the whole way, and nobody is told. */
export function TrialButton({
  form,
  proof,
  editing,
}: {
  form: AnswerOf<'form'>;
  proof: ProofState;
  editing: DraftEditing;
}) {
  const [send, { data, error, isLoading, reset }] = workshopApi.useSendTrialMutation();
  const [clear, { isLoading: isClearing }] = workshopApi.useClearTrialsMutation();
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const { completion, seat } = proof;
  const isChange = proof.over?.updating.about.is === 'one';
  const ready =
    !isChange &&
    completion.problems.length === 0 &&
    editing.state === 'kept' &&
    !editing.findings.some((finding) => finding.severity === 'error');
  const go = async (): Promise<void> => {
    const person = isAnybody(seat) ? null : seat;
    const sent = await send({
      key: form.key,
      once,
      body: {
        answers: answersToSend(proof.answers, completion, proof.asked.parts),
        person,
        outside: proof.facts.door === 'outside',
        edition: proof.edition?.id ?? null,
      },
    });
    if (!('error' in sent)) setOnce(crypto.randomUUID());
  };
  return (
    <div className="mt-4 border-t border-rule-strong pt-3 text-[13px]">
      <p className="flex flex-wrap items-center gap-3">
        <Button disabled={!ready || isLoading} onClick={go}>
          {say('workshop:sendTrial')}
        </Button>
        <span className="text-soft">
          {say(isChange ? 'workshop:trialOnlyAdds' : ready ? 'workshop:trialHint' : 'workshop:trialLater')}
        </span>
      </p>
      <p className="mt-2" aria-live="polite">
        {data ? (
          <>
            {say('workshop:trialTaken')} <Link to={`/floor/all/${data.number}`}>{data.number}</Link>.
          </>
        ) : null}
        {error ? (
          <span className="text-brick">
            {problemOf(error)
              .problems?.map((problem) => `${told(problem.message)} ${told(problem.fix)}`)
              .join(' ') ?? refusalInWords(problemOf(error))}
          </span>
        ) : null}
      </p>
      {form.trials.length > 0 ? (
        <p className="mt-1 text-soft">
          {say('workshop:trials', { count: form.trials.length })}{' '}
          <Link to={`/floor/all/${form.trials[0]?.number}`}>{form.trials[0]?.number}</Link>.{' '}
          <button
            type="button"
            className="text-green underline"
            disabled={isClearing}
            onClick={() => {
              reset();
              void clear({ key: form.key });
            }}
          >
            {say('workshop:deleteTrials')}
          </button>
        </p>
      ) : null}
    </div>
  );
}
