import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { Facts } from '../ui/Facts.tsx';
import { say, told } from '../wire/words.ts';

type Asked = AnswerOf<'sheet'>['asked'][number];
type Row = Asked['rows'][number];

const standing = ({ state, due, closed }: Row): string => {
  if (state === 'done') return say('floor:askedDone', { at: closed ?? '' });
  if (state === 'ended' || state === 'passed') return say('floor:askedEnded');
  if (due === null) return say('floor:askedOpenNoDay');
  return say(state === 'late' ? 'floor:askedLate' : 'floor:askedOpen', { due });
};

/** What was asked about the request by mailings, and what was answered. */
export function AskedAbout({ asked }: { asked: readonly Asked[] }) {
  if (asked.length === 0) return null;
  return (
    <>
      <h3 className="section-head mt-6">{say('floor:askedAbout')}</h3>
      {asked.map(({ name, form, rows, means }) => (
        <section key={name + form} className="mt-2" aria-label={say('floor:askedOf', { form, name })}>
          <p className="text-soft">{say('floor:askedOf', { form, name })}</p>
          {means.length > 0 ? (
            <dl className="mt-1 grid grid-cols-[minmax(7rem,2fr)_5fr]">
              {means.map(({ label, count, shown }) => (
                <div key={label} className="contents">
                  <dt className="border-b border-rule py-1.5 pr-2 text-soft">{label}</dt>
                  <dd className="border-b border-rule py-1.5">
                    <b className="font-semibold">{told(shown)}</b>{' '}
                    <span className="text-soft">{say('floor:askedMean', { count })}</span>
                  </dd>
                </div>
              ))}
            </dl>
          ) : null}
          <ul>
            {rows.map((row) => (
              <li key={`${row.person} ${row.sent}`} className="border-b border-rule py-1.5">
                <span className="flex flex-wrap justify-between gap-x-3">
                  <span>
                    {row.person || say('floor:askedSomebody')}{' '}
                    <span className={row.state === 'late' ? 'text-brick' : 'text-soft'}>{standing(row)}</span>
                  </span>
                  {row.answer ? (
                    <Link to={`/floor/all/${row.answer.number}`} className="font-mono text-[12.5px]">
                      {row.answer.number}
                    </Link>
                  ) : null}
                </span>
                {row.answer ? (
                  <div className="pl-3">
                    <Facts facts={row.answer.values.fields.filter(({ shown }) => shown !== '')} isRuled={false} />
                  </div>
                ) : null}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}
