import type { Problem } from '@tolvek/core/register';
import { told } from '../wire/words.ts';

/** What is wrong with an answer, right where it is: a mark, the words, the way out. */
export const ProblemLine = ({ id, problem }: { id: string; problem: Pick<Problem, 'message' | 'fix'> }) => (
  <p id={id} className="mt-1.5 font-semibold text-brick">
    <span aria-hidden="true">▲ </span>
    {told(problem.message)} <span className="font-normal">{told(problem.fix)}</span>
  </p>
);
