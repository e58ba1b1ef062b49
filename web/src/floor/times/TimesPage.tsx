import type { AnswerOf, QueryOf } from '@tolvek/contract';
import { stretchBeside, stretchOf } from '@tolvek/core/report';
import { SERVED_BY } from '@tolvek/core/service';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { meApi } from '../../wire/me.ts';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { FloorFrame } from '../FloorFrame.tsx';
import { placedAt } from '../placedAt.ts';
import { calledAs, Lines, Sums } from './TimesTold.tsx';

type Told = AnswerOf<'serviceTimes'>;
type Line = Told['lines'][number];
type Figure = QueryOf<'servedRows'>['figure'];

/** What is behind a figure: of a line, or of all. */
interface Chosen {
  readonly line: string | undefined;
  readonly label: string;
  readonly figure: Figure;
}

/** How long requests took, and what came and went, in some days. */
export function TimesPage() {
  const [place, setPlace] = useSearchParams();
  const { data: me } = meApi.useMeQuery();
  const today = (me?.desk.now ?? '').slice(0, 10);
  const usual = today === '' ? null : stretchOf('month', today);
  const from = place.get('from') ?? usual?.from ?? '';
  const to = place.get('to') ?? usual?.to ?? '';
  const by = SERVED_BY.find((each) => each === place.get('by')) ?? 'form';
  const of = place.get('of') ?? '';
  const isReady = from !== '' && to !== '' && from <= to;
  const { data, error, refetch } = floorApi.useServiceTimesQuery(
    { query: { from, to, by, of } },
    { skip: !isReady, refetchOnMountOrArgChange: true },
  );
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const put = (changes: Readonly<Record<string, string | null>>): void => {
    setChosen(null);
    setPlace(placedAt(changes));
  };
  return (
    <FloorFrame title={say('service:title')} intro={say('service:intro')} error={error} again={refetch}>
      <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
        <span className="flex items-end gap-1">
          <Button disabled={!isReady} onClick={() => put({ ...stretchBeside('month', from, 'before') })}>
            {say('service:before')}
          </Button>
          <Button disabled={!isReady} onClick={() => put({ ...stretchBeside('month', from, 'after') })}>
            {say('service:after')}
          </Button>
        </span>
        <label className="flex flex-col gap-1 text-[13px] text-soft">
          {say('service:from')}
          <input
            type="date"
            className="input w-38"
            value={from}
            max={to}
            onChange={({ target }) => (target.value === '' ? undefined : put({ from: target.value, to }))}
          />
        </label>
        <label className="flex flex-col gap-1 text-[13px] text-soft">
          {say('service:to')}
          <input
            type="date"
            className="input w-38"
            value={to}
            min={from}
            onChange={({ target }) => (target.value === '' ? undefined : put({ from, to: target.value }))}
          />
        </label>
        <label className="flex flex-col gap-1 text-[13px] text-soft">
          {say('service:of')}
          <select className="input" value={of} onChange={({ target }) => put({ of: target.value || null })}>
            <option value="">{say('service:all')}</option>
            {(data?.registers ?? []).map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1 text-[13px] text-soft">
          {say('service:by')}
          <select className="input" value={by} onChange={({ target }) => put({ by: target.value })}>
            {SERVED_BY.map((each) => (
              <option key={each} value={each}>
                {say(`service:by.${each}`)}
              </option>
            ))}
          </select>
        </label>
      </div>
      {data ? (
        <>
          <Sums all={data.all} choose={(figure) => setChosen({ line: undefined, label: '', figure })} />
          <Lines
            {...{ data, by }}
            choose={(line, figure) => setChosen({ line: line.key, label: calledAs(line, by), figure })}
          />
          {chosen ? <Behind asked={{ from, to, by, of }} chosen={chosen} close={() => setChosen(null)} /> : null}
          <Stages stages={data.all.stages} />
          <Notes data={data} />
        </>
      ) : null}
    </FloorFrame>
  );
}

interface BehindProps {
  readonly asked: QueryOf<'serviceTimes'>;
  readonly chosen: Chosen;
  readonly close: () => void;
}

/** The requests behind a figure. */
function Behind({ asked, chosen: { line, label, figure }, close }: BehindProps) {
  const query = { ...asked, figure, ...(line === undefined ? {} : { line }) };
  const { currentData: data, error } = floorApi.useServedRowsQuery({ query });
  return (
    <section
      className="mt-6 border-l-[3px] border-green bg-sheet px-4 py-3"
      aria-live="polite"
      aria-labelledby="behind-head"
    >
      <div className="flex flex-wrap items-baseline gap-4">
        <h2 id="behind-head" className="text-[17px] first-letter:uppercase">
          {label === '' ? say(`service:${figure}`) : say('service:of2', { label, what: say(`service:${figure}`) })}
        </h2>
        <button type="button" className="ml-auto text-[13px] text-green underline" onClick={close}>
          {say('common:close')}
        </button>
      </div>
      {error ? <Trouble error={error} /> : null}
      <ul className="mt-1">
        {(data?.rows ?? []).map((row) => (
          <li key={row.number} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
            <Link to={`/floor/all/${row.number}`} className="min-w-0 flex-1 truncate">
              {told(row.subject)} <span className="font-mono text-[12.5px] text-soft">{row.number}</span>
            </Link>
            <span className="text-[13px] text-soft">
              {row.finish
                ? say('service:took', { length: row.finish })
                : say('service:since', { at: Date.parse(row.arrived) })}
              {row.inTime === false ? <b className="ml-2 text-brick">{say('service:isLate')}</b> : null}
            </span>
            {row.finished ? (
              <span className="text-[13px] text-soft">
                <DeskMoment at={row.finished} show="day" />
              </span>
            ) : null}
          </li>
        ))}
      </ul>
      {data && data.total > data.rows.length ? (
        <p className="mt-2 text-soft">{say('service:more', { shown: data.rows.length, count: data.total })}</p>
      ) : null}
    </section>
  );
}

/** How long those that were finished stood in each stage, of one register. */
function Stages({ stages }: { stages: Line['stages'] }) {
  if (stages.length === 0) return null;
  return (
    <>
      <h2 className="section-head mt-8">{say('service:stages')}</h2>
      <ul>
        {stages.map(({ label, median, count }) => (
          <li key={label} className="flex items-baseline gap-4 border-b border-rule py-1.5">
            <span className="w-64 truncate">{label}</span>
            <span className="w-40">{say('service:length', { length: median })}</span>
            <span className="text-[13px] text-soft">{say('service:wereIn', { count })}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** How it is counted, and what is not in it. */
function Notes({ data: { untold, unread, isAll } }: { data: Told }) {
  return (
    <div className="mt-6 max-w-[72ch] text-[13px] text-soft">
      <p>{say('service:how')}</p>
      {untold > 0 ? <p>{say('service:untold', { count: untold })}</p> : null}
      {unread > 0 ? <p>{say('service:unread', { count: unread })}</p> : null}
      {isAll ? null : <p>{say('service:newest')}</p>}
    </div>
  );
}
