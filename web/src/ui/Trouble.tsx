import type { ProblemDocument } from '@tolvek/contract';
import { Link } from 'react-router';
import { problemOf } from '../wire/problem.ts';
import { deskEmail, say, told } from '../wire/words.ts';
import { Button } from './Button.tsx';

/** What happened, what is saved and what is not, and what to do now. */
export function RefusalSaid({ problem }: { problem: ProblemDocument }) {
  const { happened, saved, now } = problem.said;
  return (
    <>
      <p className="font-semibold">{told(happened)}</p>
      <p className="mt-0.5">
        {told(saved)} {told(now)}
      </p>
    </>
  );
}

/** What went wrong, with the link or button that belongs to it. */
export function Trouble({ error, again }: { error: unknown; again?: () => void }) {
  const problem = problemOf(error);
  return (
    <div role="alert" className="border-l-[3px] border-brick bg-brick-wash px-4 py-3">
      <RefusalSaid problem={problem} />
      <WayOn problem={problem} again={again} />
    </div>
  );
}

/** What is wrong with all that was sent; what is wrong with one input is said at that. */
export const WholeTrouble = ({ error, className = 'mt-3' }: { error: unknown; className?: string }) =>
  error && !problemOf(error).problems ? (
    <div className={className}>
      <Trouble error={error} />
    </div>
  ) : null;

function WayOn({ problem, again }: { problem: ProblemDocument; again: (() => void) | undefined }) {
  switch (problem.said.way) {
    case 'front-desk':
      return (
        <p className="mt-2">
          <Link to="/">{say('common:toFrontDesk')}</Link>
        </p>
      );
    case 'sign-in':
      return (
        <p className="mt-2">
          <Link to={`/sign-in?back=${encodeURIComponent(`${location.pathname}${location.search}`)}`}>
            {say('common:signIn')}
          </Link>
        </p>
      );
    case 'email':
      return (
        <p className="mt-2">
          <a href={`mailto:${deskEmail()}`}>{say('common:emailDesk')}</a>
        </p>
      );
    case 'reload':
      return (
        <Button className="mt-3" onClick={() => location.reload()}>
          {say('common:loadAgain')}
        </Button>
      );
    case 'again':
      return again ? (
        <Button className="mt-3" onClick={again}>
          {say('common:tryAgain')}
        </Button>
      ) : null;
    default:
      return null;
  }
}
