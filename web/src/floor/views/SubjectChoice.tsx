import type { AnswerOf } from '@tolvek/contract';
import { calledIn } from '@tolvek/core/view';
import { told } from '../../wire/words.ts';

interface SubjectChoiceProps {
  readonly id: string;
  readonly value: string;
  readonly among: readonly string[];
  readonly fields: AnswerOf<'nameable'>['fields'];
  /** What stands for nothing, where that can be chosen. */
  readonly none: string | null;
  readonly choose: (subject: string) => void;
}

/** Chooses what a view groups or sorts by, or what a shape of it is made by. */
export function SubjectChoice({ id, value, among, fields, none, choose }: SubjectChoiceProps) {
  return (
    <select id={id} className="input w-auto" value={value} onChange={({ target }) => choose(target.value)}>
      {none === null ? null : <option value="">{none}</option>}
      {among.map((subject) => (
        <option key={subject} value={subject}>
          {told(calledIn(subject, fields))}
        </option>
      ))}
    </select>
  );
}
