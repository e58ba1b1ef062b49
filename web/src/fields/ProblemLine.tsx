import type { Problem } from '@tolvek/core/register';

/** What is wrong with an answer, right where it is: a mark, the words, the way out. */
export const ProblemLine = ({ id, problem }: { id: string; problem: Pick<Problem, 'message' | 'fix'> }) => (
  <p id={id} className="mt-1.5 font-semibold text-brick">
    <span aria-hidden="true">▲ </span>
    {problem.message} <span className="font-normal">{problem.fix}</span>
  </p>
);
