import type { AnswerOf } from '@tolvek/contract';
import { type ChartShape, canDate, STRETCHES } from '@tolvek/core/view';
import { useId } from 'react';
import { say } from '../../wire/words.ts';
import { SubjectChoice } from './SubjectChoice.tsx';
import { subjectsFor } from './viewDraft.ts';

interface WordChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly among: readonly T[];
  readonly said: (each: T) => string;
  readonly choose: (each: T) => void;
}

/** One word of a few, with what it is for beside it. */
export function WordChoice<T extends string>({ label, value, among, said, choose }: WordChoiceProps<T>) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="text-soft">
        {label}
      </label>
      <select id={id} className="input w-auto" value={value} onChange={({ target }) => choose(target.value as T)}>
        {among.map((each) => (
          <option key={each} value={each}>
            {said(each)}
          </option>
        ))}
      </select>
    </>
  );
}

type Going = Pick<ChartShape, 'by' | 'each' | 'parts'>;

interface GoesByProps {
  readonly going: Going;
  readonly nameable: Pick<AnswerOf<'nameable'>, 'fields' | 'closed'>;
  /** What it is called that something is parted by another. */
  readonly within: string;
  readonly set: (going: Going) => void;
}

/** For each of what something is measured, in which steps where that is time, and by what it is parted. */
export function GoesBy({ going: { by, each, parts }, nameable: { fields, closed }, within, set }: GoesByProps) {
  const boards = subjectsFor('boards', fields, closed);
  return (
    <>
      <Choice
        label={say('views:measuredBy')}
        value={by}
        among={[...boards, ...subjectsFor('dates', fields, closed)]}
        fields={fields}
        choose={(other) => set({ by: other, each, parts: parts === other ? null : parts })}
      />
      {canDate(by, fields) ? (
        <WordChoice
          label={say('views:putTogether')}
          value={each}
          among={STRETCHES}
          said={(stretch) => say(`views:each.${stretch}`)}
          choose={(stretch) => set({ by, each: stretch, parts })}
        />
      ) : null}
      <Choice
        label={within}
        value={parts}
        among={boards.filter((subject) => subject !== by)}
        none={say('views:notParted')}
        fields={fields}
        choose={(other) => set({ by, each, parts: other || null })}
      />
    </>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string | null;
  readonly among: readonly string[];
  readonly fields: AnswerOf<'nameable'>['fields'];
  readonly none?: string;
  readonly choose: (subject: string) => void;
}

/** One of what a view can name, with what it is for beside it. */
export function Choice({ label, value, none, ...rest }: ChoiceProps) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="text-soft">
        {label}
      </label>
      <SubjectChoice id={id} value={value ?? ''} none={none ?? null} {...rest} />
    </>
  );
}
