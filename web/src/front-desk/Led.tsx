import type { RawAnswers } from '@tolvek/core/register';
import { useLocation, useNavigate } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';
import type { LeadsTo } from './useLed.ts';

/** That the answers so far are asked for somewhere else, with the way there: what was typed goes along, and stays. */
export function Led({
  title,
  to,
  answers,
}: {
  readonly title: string;
  readonly to: NonNullable<LeadsTo>;
  readonly answers: RawAnswers;
}) {
  const go = useNavigate();
  const { pathname, search } = useLocation();
  const [, place = 'ask'] = pathname.split('/');
  const values = Object.entries(answers).map(([key, value]) => ({ key, value }));
  return (
    <div role="status" className="mt-7 border-l-[3px] border-green bg-green-wash px-4 py-3">
      {to.to === 'address' ? (
        <>
          <p className="font-semibold">{say('desk:ledToAddress', { host: to.host })}</p>
          <p className="mt-1">{say('desk:keptForReturn')}</p>
          <p className="mt-3">
            <a
              className="inline-flex min-h-12 items-center rounded-md bg-green px-5 font-semibold text-on-green no-underline"
              href={to.address}
              rel="noreferrer"
            >
              {say('desk:goThere', { host: to.host })}
            </a>
          </p>
        </>
      ) : to.slug === null ? (
        <p className="font-semibold">{say('desk:askedByForm', { title: to.title })}</p>
      ) : (
        <>
          <p className="font-semibold">{say('desk:ledByAnswers', { title: to.title })}</p>
          <p className="mt-1">{say('desk:ledKeeps')}</p>
          <Button
            look="main"
            className="mt-3 min-h-12 px-5 text-[16px]"
            onClick={() => void go(`/${place}/${to.slug}${search}`, { state: { from: { title, values } } })}
          >
            {say('desk:goOnWith', { title: to.title })}
          </Button>
        </>
      )}
    </div>
  );
}
