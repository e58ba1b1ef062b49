import { problemOf } from '../wire/problem.ts';
import { Button } from './Button.tsx';

/** What went wrong, what is safe, and what to do next. */
export function Trouble({ error, again }: { error: unknown; again?: () => void }) {
  const problem = problemOf(error);
  return (
    <div role="alert" className="border-l-[3px] border-brick bg-brick-wash px-4 py-3">
      <p className="font-semibold">{problem.title}</p>
      <p className="mt-0.5">{problem.detail}</p>
      {again ? (
        <Button className="mt-3" onClick={again}>
          Try again
        </Button>
      ) : null}
    </div>
  );
}
