import type { BodyOf } from '@tolvek/contract';
import { type DecidesBy, verdictProblem } from '@tolvek/core/approval';
import { useRef, useState } from 'react';
import { say, told } from '../wire/words.ts';
import { Button } from './Button.tsx';
import { Trouble } from './Trouble.tsx';

type Decision = BodyOf<'decide'> & { key: string };

/**
 * Approve or refuse with a comment, or ask for more first; a refusal needs a reason and a return a question. Pressed twice,
 * it counts once.
 */
export function DecisionForm({
  id = 'decision',
  seen,
  by = 'seat',
  isChange = false,
  mayReturn = false,
  busy,
  error,
  decide,
}: {
  /** By which its inputs are told from those of another decision on the page. */
  id?: string;
  /** Stands for what is in view: the decision is on that and nothing else. */
  seen: string;
  /** For whoever is asked, by the right to: then it is said why. */
  by?: DecidesBy;
  /** Whether it is about a change of something, and not about all of it. */
  isChange?: boolean;
  /** Whether whoever asked can be asked for more first. */
  mayReturn?: boolean;
  busy: boolean;
  error: unknown;
  decide: (decision: Decision) => Promise<void>;
}) {
  const [comment, setComment] = useState('');
  const [problem, setProblem] = useState<ReturnType<typeof verdictProblem>>(null);
  const keys = useRef(new Map<string, string>());
  const choose = (verdict: Decision['verdict']): void => {
    const found = verdictProblem(verdict, comment, by);
    setProblem(found);
    if (found) {
      document.getElementById(`${id}-comment`)?.focus();
      return;
    }
    const content = `${seen} ${verdict} ${comment}`;
    const key = keys.current.get(content) ?? crypto.randomUUID();
    keys.current.set(content, key);
    void decide({ verdict, comment, seen, key });
  };
  return (
    <div>
      <label htmlFor={`${id}-comment`} className="font-semibold">
        {say('common:comment')}{' '}
        <span className="font-normal text-soft">
          {say(isChange ? 'common:commentChangeHint' : by === 'right' ? 'common:commentForHint' : 'common:commentHint')}
        </span>
      </label>
      <textarea
        id={`${id}-comment`}
        rows={3}
        className="input mt-1.5"
        value={comment}
        aria-invalid={problem !== null}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => {
          setComment(event.target.value);
          setProblem(null);
        }}
      />
      {problem ? (
        <p id={`${id}-problem`} role="alert" className="mt-1.5 font-semibold text-brick">
          <span aria-hidden="true">▲ </span>
          {told(problem.message)} <span className="font-normal">{told(problem.fix)}</span>
        </p>
      ) : null}
      {error ? (
        <div className="mt-3">
          <Trouble error={error} />
        </div>
      ) : null}
      <div className="mt-3 flex flex-wrap gap-3">
        <Button
          look="main"
          disabled={busy}
          className="[.desk_&]:min-h-12 [.desk_&]:px-7"
          onClick={() => choose('approve')}
        >
          {say(isChange ? 'common:acceptChange' : 'common:approve')}
        </Button>
        <Button
          look="refuse"
          disabled={busy}
          className="[.desk_&]:min-h-12 [.desk_&]:px-7"
          onClick={() => choose('refuse')}
        >
          {say(isChange ? 'common:refuseChange' : 'common:refuse')}
        </Button>
        {mayReturn ? (
          <Button disabled={busy} className="[.desk_&]:min-h-12 [.desk_&]:px-7" onClick={() => choose('return')}>
            {say('common:returnForMore')}
          </Button>
        ) : null}
      </div>
    </div>
  );
}
