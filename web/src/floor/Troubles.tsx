import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

/** What keeps the desk from all of its work, and emails that did not go, before anything else. */
export function Troubles({ troubles, failedLetters }: Pick<AnswerOf<'trays'>, 'troubles' | 'failedLetters'>) {
  const [sendAgain, { isLoading }] = floorApi.useSendFailedAgainMutation();
  if (troubles.length === 0 && failedLetters === 0) return null;
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
    </section>
  );
}
