import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Facts } from '../ui/Facts.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type Asked = AnswerOf<'sheet'>['asked'][number];
type Row = Asked['rows'][number];

const standing = ({ state, due, closed }: Row): string => {
  if (state === 'done') return say('floor:askedDone', { at: closed ?? '' });
  if (state === 'ended' || state === 'passed') return say('floor:askedEnded');
  if (due === null) return say('floor:askedOpenNoDay');
  return say(state === 'late' ? 'floor:askedLate' : 'floor:askedOpen', { due });
};

/** What was asked about the request by mailings, and what was answered; and what can be asked now. */
export function AskedAbout({ sheet: { number, asked, asks } }: { sheet: AnswerOf<'sheet'> }) {
  if (asked.length + asks.length === 0) return null;
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
      {asks.length > 0 ? <AskNow number={number} asks={asks} /> : null}
    </>
  );
}

/** Asks about the request by one of the mailings there are, at once. */
function AskNow({ number, asks }: { number: string; asks: AnswerOf<'sheet'>['asks'] }) {
  const [ask, { isLoading }] = floorApi.useAskAboutMutation();
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const go = async (mailing: string): Promise<void> => {
    const sent = await ask({ number, once, body: { mailing } });
    setOnce(crypto.randomUUID());
    if ('error' in sent) {
      const problem = problemOf(sent.error);
      toast.error(problem.problems?.map(({ message }) => told(message)).join(' ') ?? refusalInWords(problem));
    } else if (sent.data) toast(say('floor:askedNow', { count: sent.data.people }));
  };
  return (
    <p className="mt-2 flex flex-wrap gap-2">
      {asks.map(({ id, name, form }) => (
        <Button key={id} disabled={isLoading} onClick={() => void go(id)}>
          {say('floor:askNow', { form, name })}
        </Button>
      ))}
    </p>
  );
}
