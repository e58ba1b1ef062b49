import type { AnswerOf } from '@tolvek/contract';
import { lazy, Suspense, useState } from 'react';
import { useNavigate } from 'react-router';
import { badNews, news } from '../ui/news.ts';
import { Rich } from '../ui/Rich.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

const FindColleague = lazy(() => import('./FindColleague.tsx'));

/** Above a form that was sent to somebody: why it is asked, about what, until when; and a way to pass it on. */
export function SentToYou({ sent, isOpen }: { sent: NonNullable<AnswerOf<'door'>['sent']>; isOpen: boolean }) {
  const [isPassing, setPassing] = useState(false);
  const [passOn, { isLoading }] = frontDeskApi.usePassOnMutation();
  const navigate = useNavigate();
  const pass = async (to: string): Promise<void> => {
    try {
      const passed = await passOn({ id: sent.id, body: { to } }).unwrap();
      news(say('desk:passedOn', { name: passed.to }));
      navigate('/');
    } catch (error) {
      badNews(
        problemOf(error)
          .problems?.map(({ message }) => told(message))
          .join(' ') ?? problemOf(error).detail,
      );
    }
  };
  return (
    <div className="mt-3 border-l-2 border-green pl-3.5">
      {sent.about === null ? null : <p className="subject text-[17px]">{told(sent.about)}</p>}
      {sent.text ? <p className="whitespace-pre-line">{sent.text}</p> : null}
      {sent.due !== null && isOpen ? (
        <p className="text-soft">
          <Rich text="desk:neededBy" filled={{ moment: <DeskMoment at={sent.due} /> }} />
        </p>
      ) : null}
      {sent.passesOn && isOpen ? (
        isPassing ? (
          <Suspense>
            <div className="mt-2 max-w-96">
              <FindColleague label={say('desk:passOnTo')} choose={([id]) => void pass(id)} />
              <button type="button" className="mt-1 text-[14px] text-soft underline" onClick={() => setPassing(false)}>
                {say('common:cancel')}
              </button>
            </div>
          </Suspense>
        ) : (
          <button
            type="button"
            className="mt-1 text-[14px] text-soft underline"
            disabled={isLoading}
            onClick={() => setPassing(true)}
          >
            {say('desk:passOn')}
          </button>
        )
      ) : null}
    </div>
  );
}
