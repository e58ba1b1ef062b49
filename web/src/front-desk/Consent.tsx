import type { Problem } from '@tolvek/core/register';
import { inputId } from '../fields/AskedQuestion.tsx';
import { ProblemLine } from '../fields/ProblemLine.tsx';
import { LiveText } from '../ui/LiveText.tsx';
import { say } from '../wire/words.ts';

interface ConsentProps {
  readonly text: string;
  readonly isGiven: boolean;
  readonly problem: Problem | undefined;
  readonly give: (isGiven: boolean) => void;
}

/** What somebody agrees to before they send. */
export function Consent({ text, isGiven, problem, give }: ConsentProps) {
  const id = inputId('consent');
  return (
    <>
      <h2 className="section-head mt-9">{say('desk:consent')}</h2>
      <p className="mt-3 whitespace-pre-line">
        <LiveText text={text} />
      </p>
      <label className="mt-3 flex min-h-11 items-center gap-3 font-semibold">
        <input
          id={id}
          type="checkbox"
          className="size-5 shrink-0 accent-green"
          checked={isGiven}
          aria-invalid={problem !== undefined}
          aria-describedby={problem ? `${id}-problem` : undefined}
          onChange={(event) => give(event.target.checked)}
        />
        {say('desk:iAgree')}
      </label>
      {problem ? <ProblemLine id={`${id}-problem`} problem={problem} /> : null}
    </>
  );
}
