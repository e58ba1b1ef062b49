import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

/** What keeps the desk from all of its work, emails that did not go, and what programs did not take, before anything else. */
export function Troubles({
  troubles,
  failedLetters,
  failedTexts,
  failedPrograms,
}: Pick<AnswerOf<'trays'>, 'troubles' | 'failedLetters' | 'failedTexts' | 'failedPrograms'>) {
  const [sendAgain, { isLoading }] = floorApi.useSendFailedAgainMutation();
  if (troubles.length + failedLetters + failedTexts + failedPrograms.length === 0) return null;
  const again = (): void => {
    sendAgain()
      .unwrap()
      .then(({ letters }) => toast(say('floor:sendingAgain', { count: letters })))
      .catch((error: unknown) => toast.error(refusalInWords(problemOf(error))));
  };
  return (
    <section aria-label={say('floor:wrong')} className="mx-[22px] mb-3 border-l-[3px] border-brick py-1 pl-4">
      {troubles.map((trouble) => (
        <p key={told(trouble.words)} role="alert">
          <b className="text-brick">
            <span aria-hidden="true">▲ </span>
            {say('floor:somethingWrong')}
          </b>{' '}
          {told(trouble.words)}
        </p>
      ))}
      {failedLetters > 0 ? (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <span>
            <b className="text-brick">
              <span aria-hidden="true">▲ </span>
              {say('floor:notDelivered', { count: failedLetters })}
            </b>
          </span>
          <Button look="plain" disabled={isLoading} onClick={again}>
            {say('floor:sendAgain', { count: failedLetters })}
          </Button>
        </p>
      ) : null}
      {failedTexts > 0 ? (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <b className="text-brick">
            <span aria-hidden="true">▲ </span>
            {say('floor:textsNotDelivered', { count: failedTexts })}
          </b>
          <Link to="/workshop/groundwork/emails">{say('floor:toProgram')}</Link>
        </p>
      ) : null}
      {failedPrograms.map(({ key, name, count }) => (
        <p key={key} className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <b className="text-brick">
            <span aria-hidden="true">▲ </span>
            {say('floor:notTaken', { program: name, count })}
          </b>
          <Link to={`/workshop/groundwork/programs/${key}`}>{say('floor:toProgram')}</Link>
        </p>
      ))}
    </section>
  );
}
