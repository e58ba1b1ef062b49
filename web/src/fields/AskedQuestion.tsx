import type { Question } from '@tolvek/core/form';
import type { Field, Problem, RawAnswer } from '@tolvek/core/register';
import { FieldInput } from './inputs.tsx';
import { ProblemLine } from './ProblemLine.tsx';

interface AskedQuestionProps {
  readonly question: Question;
  readonly field: Field;
  readonly value: RawAnswer;
  readonly problem: Problem | undefined;
  readonly onChange: (value: RawAnswer) => void;
  readonly onBlur?: () => void;
  /** Keeps ids apart when a form stands on a page twice. */
  readonly prefix?: string;
}

/** The id of a question's input, for the list of problems to link to. */
export const inputId = (field: string, prefix = 'answer'): string => `${prefix}-${field}`;

/** One question: its wording, its help, its input, and what is wrong with the answer, right where it is. */
export function AskedQuestion({ question, field, value, problem, onChange, onBlur, prefix = 'answer' }: AskedQuestionProps) {
  const id = inputId(field.key, prefix);
  const described = [question.help ? `${id}-help` : '', problem ? `${id}-problem` : ''].filter(Boolean).join(' ');
  const asks = question.asks || field.label;
  const label = (
    <>
      {asks} {question.required ? null : <span className="font-normal text-soft">(can be left empty)</span>}
    </>
  );
  return (
    <div className="mt-5">
      {field.type.kind === 'yes-no' ? (
        <span id={`${id}-label`} className="block font-semibold">
          {label}
        </span>
      ) : (
        <label htmlFor={id} className="block font-semibold">
          {label}
        </label>
      )}
      {question.help ? (
        <p id={`${id}-help`} className="mt-0.5 text-[0.93em] text-soft">
          {question.help}
        </p>
      ) : null}
      <div className="mt-1.5">
        <FieldInput id={id} field={field} value={value} onChange={onChange} {...(onBlur ? { onBlur } : {})} describedBy={described || undefined} invalid={problem !== undefined} />
      </div>
      {problem ? <ProblemLine id={`${id}-problem`} problem={problem} /> : null}
    </div>
  );
}
