import { problemOf } from '../wire/problem.ts';

/** What was wrong with one field of what was sent, with the way out. */
export const ProblemsAt = ({ error, field }: { error: unknown; field: string }) => (
  <>
    {(error ? (problemOf(error).problems ?? []) : [])
      .filter((problem) => problem.field === field)
      .map((problem) => (
        <span key={problem.message} className="mt-1 block text-brick">{`${problem.message} ${problem.fix}`}</span>
      ))}
  </>
);
