import type { AnswerOf } from '@tolvek/contract';
import { applyFix, fixInWords } from '@tolvek/core/form';
import { useState } from 'react';
import { Link } from 'react-router';
import { say, told } from '../wire/words.ts';
import type { Change } from './editing.ts';
import { inOrderOf } from './inOrderOf.ts';
import { Placing } from './Placing.tsx';
import { WayDialog } from './WayDialog.tsx';

type Finding = AnswerOf<'form'>['findings'][number];

const keyOf = (finding: Finding): string => finding.at + told(finding.message);

/**
 * Everything wrong or doubtful in the draft, along the bottom; each with a way there, and a step
 * that mends it where there is one.
 */
export function Findings({
  findings,
  formKey,
  change,
}: {
  findings: readonly Finding[];
  formKey: string;
  change: Change;
}) {
  const { still, holds } = useStill(findings);
  const errors = findings.filter((finding) => finding.severity === 'error');
  const cautions = findings.filter((finding) => finding.severity === 'caution');
  const first = findings[0];
  return (
    <section aria-label={say('workshop:findingsTitle')} className="border-t border-rule-strong bg-sheet px-5">
      {first ? (
        <details>
          <summary className="flex h-[38px] items-center gap-5">
            {errors.length > 0 ? (
              <span className="font-semibold whitespace-nowrap text-brick">
                {say('workshop:errors', { count: errors.length })}
              </span>
            ) : null}
            {cautions.length > 0 ? (
              <span className="font-semibold whitespace-nowrap text-brass">
                {say('workshop:cautions', { count: cautions.length })}
              </span>
            ) : null}
            <span className="truncate">{told(first.message)}</span>
          </summary>
          <ul className="max-h-48 overflow-auto pb-3" {...holds}>
            {still.map((finding) => (
              <li key={keyOf(finding)} className="flex items-baseline gap-4 border-t border-rule py-1.5">
                <span
                  className={`min-w-16 font-semibold ${finding.severity === 'error' ? 'text-brick' : 'text-brass'}`}
                >
                  {say(finding.severity === 'error' ? 'workshop:anError' : 'workshop:aCaution')}
                </span>
                <span className="flex-1">{told(finding.message)}</span>
                <Placing finding={finding} formKey={formKey} />
                <WayDialog finding={finding} formKey={formKey} change={change} />
                {finding.fix ? <FixButton fix={finding.fix} change={change} /> : null}
                <Link to={`/workshop/${formKey}/${finding.page}#at-${finding.at}`}>{say('workshop:goThere')}</Link>
              </li>
            ))}
          </ul>
        </details>
      ) : (
        <p className="flex h-[38px] items-center text-soft">{say('workshop:noFindings')}</p>
      )}
    </section>
  );
}

/**
 * A list that keeps still under a hand: while somebody points at it, or is in it with the keys, what was found since comes
 * at its end, so that a press meets what it was meant for.
 */
function useStill(findings: readonly Finding[]) {
  const [held, setHeld] = useState<readonly string[] | null>(null);
  const hold = (): void => setHeld((before) => before ?? findings.map(keyOf));
  const release = (): void => setHeld(null);
  const leave = ({ currentTarget, relatedTarget }: React.FocusEvent): void => {
    if (!currentTarget.contains(relatedTarget)) release();
  };
  return {
    still: held === null ? findings : inOrderOf(held, findings, keyOf),
    holds: { onPointerEnter: hold, onPointerDown: hold, onPointerLeave: release, onFocus: hold, onBlur: leave },
  };
}

const FixButton = ({ fix, change }: { fix: NonNullable<Finding['fix']>; change: Change }) => (
  <button
    type="button"
    className="text-green underline"
    onClick={() => change((before) => applyFix(before, fix, told))}
  >
    {told(fixInWords(fix))}
  </button>
);

/** A finding where it stands, with the step that mends it. */
export const FindingLine = ({ finding, formKey, change }: { finding: Finding; formKey: string; change: Change }) => (
  <p className={`mt-2 ${finding.severity === 'error' ? 'text-brick' : 'text-brass'}`}>
    {told(finding.message)} {finding.fix ? <FixButton fix={finding.fix} change={change} /> : null}{' '}
    <Placing finding={finding} formKey={formKey} /> <WayDialog finding={finding} formKey={formKey} change={change} />
  </p>
);
