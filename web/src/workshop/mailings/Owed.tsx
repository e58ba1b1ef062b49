import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import type { MailingView } from './mailingView.ts';

const STATES = ['open', 'late', 'done', 'passed', 'ended'] as const;
type Row = AnswerOf<'owedForms'>['rows'][number];

/** Who was sent a mailing, and who has answered: those who have not can be reminded, or let off. */
export function Owed({ view: { id, mailing, goings, counts } }: { view: MailingView }) {
  const [state, setState] = useState<(typeof STATES)[number] | ''>(counts.open > 0 ? 'open' : '');
  const [going, setGoing] = useState('');
  const { data, error, refetch } = workshopApi.useOwedFormsQuery({
    id,
    query: { ...(state === '' ? {} : { state }), ...(going === '' ? {} : { going }) },
  });
  const [remind, reminding] = workshopApi.useRemindOwedMutation();
  const [end, ending] = workshopApi.useEndOwedMutation();
  const done = async (doing: Promise<string>): Promise<void> => {
    try {
      toast(await doing);
    } catch (problem) {
      toast.error(refusalInWords(problemOf(problem)));
    }
  };
  const remindThem = (only: readonly string[] | null): void =>
    void done(
      remind({ id, body: { only: only && [...only] } })
        .unwrap()
        .then(({ people }) => say('mailings:reminded', { count: people })),
    );
  const letOff = (row: Row): void =>
    void done(
      end({ id, body: { forms: [row.id] } })
        .unwrap()
        .then(() => say('mailings:letOff', { name: row.name ?? '' })),
    );
  return (
    <div className="mt-4 border-l-2 border-green pl-4">
      <p className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <label className="flex items-center gap-2 text-soft">
          {say('mailings:show')}
          <select
            className="input w-auto"
            value={state}
            onChange={({ target }) => setState(STATES.find((each) => each === target.value) ?? '')}
          >
            <option value="">{say('mailings:state.all')}</option>
            {STATES.map((each) => (
              <option key={each} value={each}>
                {say(`mailings:state.${each}`)}
              </option>
            ))}
          </select>
        </label>
        {goings.length > 1 && mailing.when.is !== 'reached' ? (
          <label className="flex items-center gap-2 text-soft">
            {say('mailings:sentOn')}
            <select className="input w-auto" value={going} onChange={({ target }) => setGoing(target.value)}>
              <option value="">{say('mailings:anyTime')}</option>
              {goings.map((each) => (
                <option key={each.id} value={each.id}>
                  {say('mailings:goingOf', { at: each.at, done: each.done, count: each.sent })}
                </option>
              ))}
            </select>
          </label>
        ) : null}
        {counts.open > 0 ? (
          <Button disabled={reminding.isLoading} onClick={() => remindThem(null)}>
            {say('mailings:remindAll')}
          </Button>
        ) : null}
      </p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data?.rows.length === 0 ? <p className="py-3 text-soft">{say('mailings:noneSo')}</p> : null}
      {data && data.rows.length > 0 ? (
        <table className="mt-3 w-full text-left [&_td]:border-b [&_td]:border-rule [&_td]:py-2 [&_td]:pr-3 [&_td]:align-baseline [&_th]:border-b [&_th]:border-rule-strong [&_th]:py-1.5 [&_th]:pr-3 [&_th]:font-normal [&_th]:text-soft">
          <thead>
            <tr>
              <th scope="col">{say('mailings:col.who')}</th>
              <th scope="col">{say('mailings:col.state')}</th>
              <th scope="col">{say('mailings:col.due')}</th>
              <th scope="col">
                <span className="sr-only">{say('mailings:col.acts')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.rows.map((row) => (
              <tr key={row.id}>
                <td>
                  {row.name ?? <span className="text-soft">{say('mailings:hidden')}</span>}
                  {row.about === null ? null : <span className="block text-soft">{told(row.about)}</span>}
                  {row.passedBy === null ? null : (
                    <span className="block text-[13px] text-soft">{say('mailings:from', { name: row.passedBy })}</span>
                  )}
                  {row.active ? null : <span className="block text-[13px] text-brick">{say('mailings:left')}</span>}
                </td>
                <td className={row.state === 'late' ? 'text-brick' : ''}>
                  {say(`mailings:is.${row.state}`)}
                  {row.closed === null ? null : (
                    <span className="block text-[13px] text-soft">
                      <DeskMoment at={row.closed} />
                    </span>
                  )}
                  {row.answer === null ? null : (
                    <Link to={`/floor/all/${row.answer}`} className="block font-mono text-[13px]">
                      {row.answer}
                    </Link>
                  )}
                </td>
                <td>{row.due === null ? '–' : <DeskMoment at={row.due} />}</td>
                <td>
                  {row.state === 'open' || row.state === 'late' ? (
                    <span className="flex justify-end gap-3">
                      {row.active ? (
                        <button
                          type="button"
                          className="text-green underline"
                          aria-label={say('mailings:remindNamed', { name: row.name ?? '' })}
                          disabled={reminding.isLoading}
                          onClick={() => remindThem([row.id])}
                        >
                          {say('mailings:remind')}
                        </button>
                      ) : null}
                      <button
                        type="button"
                        className="text-brick underline"
                        aria-label={say('mailings:letOffNamed', { name: row.name ?? '' })}
                        disabled={ending.isLoading}
                        onClick={() => letOff(row)}
                      >
                        {say('mailings:letOffOne')}
                      </button>
                    </span>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {data && data.total > data.rows.length ? (
        <p className="mt-2 text-soft">{say('mailings:andMore', { count: data.total - data.rows.length })}</p>
      ) : null}
      {mailing.about.is === 'requests' ? <Unjoined id={id} /> : null}
    </div>
  );
}

/** What came in by the form without saying which request it is about: somebody joins it by hand, and nothing does by guess. */
function Unjoined({ id }: { id: string }) {
  const { data } = workshopApi.useUnjoinedQuery({ id });
  if (!data || data.requests.length === 0) return null;
  return (
    <>
      <h3 className="section-head mt-5">{say('mailings:unjoined')}</h3>
      <p className="mt-1 text-soft">{say('mailings:unjoinedSays')}</p>
      <ul className="mt-1">
        {data.requests.map(({ number, subject, at }) => (
          <li key={number} className="flex justify-between gap-3 border-b border-rule py-1.5">
            <Link to={`/floor/all/${number}`}>
              {told(subject)} <span className="font-mono text-[12.5px] text-soft">{number}</span>
            </Link>
            <span className="text-soft">
              <DeskMoment at={at} show="day" />
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
