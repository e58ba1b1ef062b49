import type { VisibleField } from '@tolvek/core/access';
import type { Kind, RawAnswer, RawAnswers } from '@tolvek/core/register';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { ChangedAnswer, problemsInWords, toWorkOn } from './EditInPlace.tsx';
import { useAroundFields } from './input.ts';

/** What is typed into the answers of a request while all of them are open, and what became of saving it. */
export interface AllOpen {
  /** Those that are other than what stands there. */
  readonly changes: RawAnswers;
  readonly type: (field: VisibleField, kind: Kind, value: RawAnswer) => void;
  readonly error: unknown;
  readonly isSaving: boolean;
  readonly save: () => Promise<void>;
  readonly discard: () => void;
}

/**
 * Answers of a request that are all open to be changed, and saved in one go. `change`: saves them; what was refused stays
 * as it was typed. `again`: reads what became otherwise meanwhile.
 */
export function useAllOpen(change: (changes: RawAnswers) => Promise<unknown>, again: () => void): AllOpen {
  const [changes, setChanges] = useState<RawAnswers>({});
  const [error, setError] = useState<unknown>(null);
  const [isSaving, setSaving] = useState(false);
  return {
    ...{ changes, error, isSaving },
    type: (field, kind, value) =>
      setChanges(({ [field.key]: _, ...others }) =>
        JSON.stringify(value) === JSON.stringify(toWorkOn(kind, field.value))
          ? others
          : { ...others, [field.key]: value },
      ),
    save: async () => {
      setSaving(true);
      try {
        await change(changes);
        setChanges({});
        setError(null);
      } catch (trouble) {
        setError(trouble);
        if (problemOf(trouble).status === 412) again();
      }
      setSaving(false);
    },
    discard: () => {
      setChanges({});
      setError(null);
    },
  };
}

interface OpenAnswerProps {
  readonly id: string;
  readonly field: VisibleField;
  readonly kind: Kind;
  readonly help: string;
  readonly all: AllOpen;
}

/** One of the answers that are all open: its input where it stands, with what is wrong with it. */
export function OpenAnswer({ id, field, kind, help, all }: OpenAnswerProps) {
  const wrong = all.error ? (problemOf(all.error).problems ?? []).filter((each) => each.field === field.key) : [];
  return (
    <div className="border-b border-rule py-2.5">
      <ChangedAnswer
        {...{ id, help }}
        field={{ key: field.key, label: field.label, type: kind }}
        lines={field.lines}
        value={Object.hasOwn(all.changes, field.key) ? (all.changes[field.key] ?? null) : toWorkOn(kind, field.value)}
        set={(value) => all.type(field, kind, value)}
        wrong={problemsInWords(wrong)}
        busy={all.isSaving}
      />
    </div>
  );
}

interface SaveAllProps {
  readonly all: AllOpen;
  readonly stop: () => void;
  /** How it lies on what is under it. */
  readonly className: string;
}

/** Saves all that was changed, at the foot of what is read. */
export function SaveAll({ all, stop, className }: SaveAllProps) {
  const count = Object.keys(all.changes).length;
  const { isOnTheWay } = useAroundFields();
  const problem = all.error ? problemOf(all.error) : null;
  return (
    <div className={`sticky z-10 mt-3 border-t border-green pt-2.5 ${className}`}>
      {problem ? (
        <p role="alert" className="mb-2 text-brick">
          {problem.problems ? say('common:seeProblems', { count: problem.problems.length }) : refusalInWords(problem)}
        </p>
      ) : null}
      <p className="flex flex-wrap items-center gap-3">
        <Button look="main" disabled={count === 0 || all.isSaving || isOnTheWay} onClick={() => void all.save()}>
          {count === 0 ? say('common:nothingChanged') : say('common:saveChanges', { count })}
        </Button>
        {count > 0 ? <Button onClick={all.discard}>{say('common:discardChanges')}</Button> : null}
        {count === 0 ? <Button onClick={stop}>{say('common:done')}</Button> : null}
      </p>
    </div>
  );
}
