import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { say, told } from '../../wire/words.ts';
import { percentOf } from './percent.ts';

type Likely = AnswerOf<'forecast'>['requests'][number];

/** What may be late, the likeliest first, each with when it is due, when it is probably finished, and why. */
export function LikelyLate({ requests, more }: { requests: readonly Likely[]; more: number }) {
  return (
    <section aria-labelledby="likely-late">
      <h2 id="likely-late" className="section-head">
        {say('forecast:likelyLate')}
      </h2>
      {requests.length === 0 ? <p className="mt-2 text-soft">{say('forecast:noneLikely')}</p> : null}
      <ul>
        {requests.map((request) => (
          <Line key={`${request.number} ${request.dueFor ? told(request.dueFor) : ''}`} request={request} />
        ))}
      </ul>
      {more > 0 ? <p className="mt-3 text-soft">{say('forecast:more', { count: more })}</p> : null}
    </section>
  );
}

function Line({ request }: { request: Likely }) {
  const { number, subject, team, handler, due, dueFor, chance, reasons } = request;
  const percent = percentOf(chance);
  return (
    <li className="grid grid-cols-[5.5rem_minmax(0,1fr)] gap-4 border-b border-rule py-3">
      <div>
        <span className={`font-semibold tabular-nums ${chance >= 0.5 ? 'text-brick' : 'text-ink'}`}>
          {say('forecast:chance', { percent })}
        </span>
        <span aria-hidden className="mt-1 block h-[3px] bg-rule">
          <span
            className={`block h-full ${chance >= 0.5 ? 'bg-brick' : 'bg-brass-mark'}`}
            style={{ width: `${percent}%` }}
          />
        </span>
      </div>
      <div className="min-w-0">
        <p className="flex flex-wrap items-baseline justify-between gap-x-4">
          <Link to={`/floor/all/${number}`} className="subject min-w-0 truncate text-[16px] text-ink">
            {told(subject)}
          </Link>
          <span className="text-[13px] text-soft">{[number, team, handler].filter(Boolean).join(', ')}</span>
        </p>
        <p className="text-[13.5px]">
          {dueFor ? `${told(dueFor)}: ` : ''}
          {due === null ? say('forecast:dueStill') : say('forecast:due', { at: due })},{' '}
          <Finish finish={request.finish} />
        </p>
        <div className="mt-1 text-[13.5px]">
          <Between finish={request.finish} />
        </div>
        <ul className="text-[13.5px] text-soft">
          {reasons.map((reason) => (
            <li key={told(reason)}>{told(reason)}</li>
          ))}
        </ul>
      </div>
    </li>
  );
}

/** When it is probably finished. */
export const Finish = ({ finish: { likely } }: Pick<Likely, 'finish'>) =>
  likely === null ? say('forecast:finishesLater') : say('forecast:finishes', { at: likely });

/** Between which moments it is, most times; nothing where that is too far away. */
export function Between({ finish: { early, late } }: Pick<Likely, 'finish'>) {
  if (early === null) return null;
  return (
    <p className="text-soft">
      {late === null ? say('forecast:finishesAfter', { early }) : say('forecast:finishesBetween', { early, late })}
    </p>
  );
}
