import type { AnswerOf } from '@tolvek/contract';
import { told } from '../wire/words.ts';

/** Which of several can’t be changed so, each with the reason. */
export function NotSo({ refused }: { refused: AnswerOf<'rerouteMany'>['refused'] }) {
  if (refused.length === 0) return null;
  return (
    <ul className="mt-2 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
      {refused.map(({ number, why }) => (
        <li key={number}>
          <span className="font-mono text-[12.5px]">{number}</span> {told(why)}
        </li>
      ))}
    </ul>
  );
}
