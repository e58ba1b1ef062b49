import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { Rich } from '../ui/Rich.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';

/** What waits for the decision of whoever looks; nothing where nothing does. */
export function ToDecide({ waiting: { rows, total } }: { waiting: AnswerOf<'frontDesk'>['toDecide'] }) {
  if (rows.length === 0) return null;
  return (
    <>
      <h2 className="section-head mt-7">{say('desk:toDecide')}</h2>
      <ul>
        {rows.map(({ number, subject, requester, due, late }) => (
          <li
            key={number}
            className="my-2 grid grid-cols-[1fr_auto] items-center gap-3 border-b border-l-[3px] border-b-rule border-l-brass-mark py-2.5 pl-3"
          >
            <span>
              <span className="subject block text-[17px]">{told(subject)}</span>
              <span className="text-soft">
                <span className="font-mono text-[13px]">{number}</span>
                {requester === '' ? null : ` · ${say('desk:asksOf', { name: requester })}`}
                {due === null ? null : (
                  <>
                    {' · '}
                    <span className={late ? 'text-brick' : ''}>
                      <Rich text={late ? 'desk:wasDue' : 'desk:isDue'} filled={{ moment: <DeskMoment at={due} /> }} />
                    </span>
                  </>
                )}
              </span>
            </span>
            <Link to={`/floor/deciding/${number}`} aria-label={say('desk:decideNamed', { number })}>
              {say('desk:decide')}
            </Link>
          </li>
        ))}
      </ul>
      {total > rows.length ? (
        <p className="py-1">
          <Link to="/floor/deciding">{say('desk:moreToDecide', { count: total - rows.length })}</Link>
        </p>
      ) : null}
    </>
  );
}
