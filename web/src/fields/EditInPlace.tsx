import type { ProblemDocument } from '@tolvek/contract';
import type { VisibleField, VisibleLines } from '@tolvek/core/access';
import { type Kind, type RawAnswer, type RawRow, typedForm, withRowIds } from '@tolvek/core/register';
import { Button } from '../ui/Button.tsx';
import { refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { useAroundFields } from './input.ts';
import { FieldInput } from './inputs.tsx';

interface ChangedAnswerProps {
  readonly id: string;
  readonly field: { readonly key: string; readonly label: string; readonly type: Kind };
  readonly lines?: VisibleLines | undefined;
  readonly help: string;
  readonly value: RawAnswer;
  readonly set: (value: RawAnswer) => void;
  /** What is wrong with it; empty where nothing is. */
  readonly wrong: string;
  readonly busy: boolean;
}

/** The input of an answer that stands already, with its label, its help and what is wrong with it. */
export const ChangedAnswer = ({ id, field, lines, help, value, set, wrong, busy }: ChangedAnswerProps) => (
  <>
    <label htmlFor={id} id={`${id}-label`} className="mb-1 block text-soft">
      {field.label}
    </label>
    {help ? (
      <p id={`${id}-help`} className="mb-1 text-[13px] whitespace-pre-line text-soft">
        {help}
      </p>
    ) : null}
    <FieldInput
      {...{ id, field, value, lines }}
      onChange={set}
      describedBy={[help ? `${id}-help` : '', wrong ? `${id}-problem` : ''].filter(Boolean).join(' ') || undefined}
      invalid={wrong !== ''}
      disabled={busy}
    />
    {wrong ? (
      <p id={`${id}-problem`} role="alert" className="mt-1 text-brick">
        {wrong}
      </p>
    ) : null}
  </>
);

/** What is wrong with an answer, and the way out, one after the other. */
export const problemsInWords = (problems: NonNullable<ProblemDocument['problems']>): string =>
  problems.map((each) => `${told(each.message)} ${told(each.fix)}`).join(' ');

interface EditInPlaceProps extends Omit<ChangedAnswerProps, 'wrong' | 'busy'> {
  /** Why it was not saved. */
  readonly problem: ProblemDocument | null;
  readonly isLoading: boolean;
  readonly save: (event: React.FormEvent) => Promise<void>;
  readonly stop: () => void;
  readonly className?: string;
}

/** One value, changed where it stands. */
export function EditInPlace({ className = 'border-b border-green', save, stop, ...answer }: EditInPlaceProps) {
  const { problem, isLoading, ...rest } = answer;
  const { isOnTheWay } = useAroundFields();
  return (
    <form onSubmit={save} className={`${className} py-2`} onKeyDown={(event) => event.key === 'Escape' && stop()}>
      <ChangedAnswer
        {...rest}
        wrong={problem?.problems?.length ? problemsInWords(problem.problems) : problem ? refusalInWords(problem) : ''}
        busy={isLoading}
      />
      <div className="mt-2 flex gap-2">
        <Button type="submit" look="main" disabled={isLoading || isOnTheWay}>
          {say('common:save')}
        </Button>
        <Button onClick={stop}>{say('common:cancel')}</Button>
      </div>
    </form>
  );
}

/** A value as it is typed, the lines of one with their ids: they keep them, whatever is typed. */
export function toWorkOn(type: Kind, value: VisibleField['value']): RawAnswer {
  if (value === null) return '';
  const typed = typedForm({ type }, value);
  return type.kind === 'line-items' && Array.isArray(typed) ? withRowIds(typed as readonly RawRow[]) : typed;
}
