import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { say, told } from '../wire/words.ts';
import { Waits } from './Waits.tsx';
import { WhenDue } from './WhenDue.tsx';

/** What waits for the decision of whoever looks; nothing where nothing does. */
export function ToDecide({ waiting: { rows, total } }: { waiting: AnswerOf<'frontDesk'>['toDecide'] }) {
  if (rows.length === 0) return null;
  return (
    <>
      <h2 className="section-head mt-7">{say('desk:toDecide')}</h2>
      <ul>
        {rows.map(({ number, subject, requester, due, late }) => (
          <Waits
            key={number}
            title={told(subject)}
            to={`/floor/deciding/${number}`}
            step={say('desk:decide')}
            named={say('desk:decideNamed', { number })}
          >
            <span className="text-soft">
              <span className="font-mono text-[13px]">{number}</span>
              {requester === '' ? null : ` · ${say('desk:asksOf', { name: requester })}`}
              <WhenDue due={due} late={late} />
            </span>
          </Waits>
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
