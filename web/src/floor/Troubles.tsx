import type { AnswerOf } from '@tolvek/contract';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { problemOf } from '../wire/problem.ts';
import { floorApi } from './endpoints.ts';

/** What keeps the desk from all of its work, and emails that did not go, before anything else. */
export function Troubles({ troubles, failedLetters }: Pick<AnswerOf<'trays'>, 'troubles' | 'failedLetters'>) {
  const [sendAgain, { isLoading }] = floorApi.useSendFailedAgainMutation();
  if (troubles.length === 0 && failedLetters === 0) return null;
  const again = (): void => {
    sendAgain()
      .unwrap()
      .then(({ letters }) =>
        toast(letters === 1 ? 'We are sending one email again.' : `We are sending ${letters} emails again.`),
      )
      .catch((error: unknown) => toast.error(problemOf(error).detail));
  };
  return (
    <section aria-label="What is wrong" className="mx-[22px] mb-3 border-l-[3px] border-brick py-1 pl-4">
      {troubles.map((trouble) => (
        <p key={trouble.words} role="alert">
          <b className="text-brick">
            <span aria-hidden="true">▲ </span>Something is wrong.
          </b>{' '}
          {trouble.words}
        </p>
      ))}
      {failedLetters > 0 ? (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <span>
            <b className="text-brick">
              <span aria-hidden="true">▲ </span>
              {failedLetters === 1 ? 'One email was not delivered' : `${failedLetters} emails were not delivered`}
            </b>{' '}
            after seven tries.
          </span>
          <Button look="plain" disabled={isLoading} onClick={again}>
            {failedLetters === 1 ? 'Send it again' : 'Send them again'}
          </Button>
        </p>
      ) : null}
    </section>
  );
}
