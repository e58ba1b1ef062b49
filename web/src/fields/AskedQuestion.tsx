import type { AskedQuestion as Asked } from '@tolvek/core/form';
import type { Field, Problem, RawAnswer } from '@tolvek/core/register';
import { say, told } from '../wire/words.ts';
import { FieldInput, isGrouped } from './inputs.tsx';
import { ProblemLine } from './ProblemLine.tsx';

interface AskedQuestionProps {
  readonly question: Asked;
  readonly field: Field;
  /** What was typed; undefined while nobody has touched it, when its default stands. */
  readonly value: RawAnswer | undefined;
  readonly problems: readonly Problem[];
  /** What rules say here without refusing anything. */
  readonly warnings: readonly string[];
  readonly onChange: (value: RawAnswer) => void;
  readonly onBlur?: () => void;
  /** Keeps ids apart when a form stands on a page twice. */
  readonly prefix?: string;
}

/** The id of a question's input, for the list of problems to link to. */
export const inputId = (field: string, prefix = 'answer'): string => `${prefix}-${field}`;

/**
 * One question: its wording, its help, its input, and what is wrong with the answer, right where it
 * is.
 */
export function AskedQuestion({
  question,
  field,
  value,
  problems,
  warnings,
  onChange,
  onBlur,
  prefix = 'answer',
}: AskedQuestionProps) {
  const id = inputId(field.key, prefix);
  const whole = problems.find((problem) => !problem.place);
  const described = [
    question.help ? `${id}-help` : '',
    whole ? `${id}-problem` : '',
    warnings.length > 0 ? `${id}-warning` : '',
  ]
    .filter(Boolean)
    .join(' ');
  const asks = question.asks || field.label;
  const label = (
    <>
      {asks}{' '}
      {question.required || question.locked ? null : (
        <span className="font-normal text-soft">{say('desk:optional')}</span>
      )}
    </>
  );
  return (
    <div className={`mt-5 ${prefix === 'proof' ? 'drawn-in-view [contain-intrinsic-block-size:auto_80px]' : ''}`}>
      {question.locked || isGrouped(field.type) ? (
        <span id={`${id}-label`} className="block font-semibold">
          {label}
        </span>
      ) : (
        <label id={`${id}-label`} htmlFor={id} className="block font-semibold">
          {label}
        </label>
      )}
      {question.help ? (
        <p id={`${id}-help`} className="mt-0.5 text-[0.93em] whitespace-pre-line text-soft">
          {question.help}
        </p>
      ) : null}
      {question.locked ? (
        <p className="mt-1.5 border-l-2 border-rule-strong py-1.5 pl-3 whitespace-pre-line">
          {question.shown ? told(question.shown) : <span className="text-soft">{say('desk:noAnswer')}</span>}{' '}
          <span className="text-[0.88em] text-soft">
            {value === undefined ? say('desk:setByForm') : say('desk:replacedByForm')}
          </span>
        </p>
      ) : (
        <div className="mt-1.5">
          <FieldInput
            id={id}
            field={field}
            offers={question.offers}
            value={value === undefined ? question.stands : value}
            onChange={onChange}
            {...(onBlur ? { onBlur } : {})}
            describedBy={described || undefined}
            invalid={problems.length > 0}
            cells={problems.filter((problem) => problem.place)}
          />
        </div>
      )}
      {whole ? <ProblemLine id={`${id}-problem`} problem={whole} /> : null}
      {warnings.length > 0 ? (
        <p id={`${id}-warning`} className="mt-1.5 text-brass">
          <span aria-hidden="true">◆ </span>
          {warnings.join(' ')}
        </p>
      ) : null}
    </div>
  );
}
