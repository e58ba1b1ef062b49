import { problemOf } from '../wire/problem.ts';
import { told } from '../wire/words.ts';

/** What was wrong with one field of what was sent, with the way out. */
export const ProblemsAt = ({ error, field }: { error: unknown; field: string }) => (
  <>
    {(error ? (problemOf(error).problems ?? []) : [])
      .filter((problem) => problem.field === field)
      .map((problem) => (
        <span key={told(problem.message)} className="mt-1 block text-brick">
          {told(problem.message)} {told(problem.fix)}
        </span>
      ))}
  </>
);
