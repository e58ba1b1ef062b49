import type { AnswerOf } from '@tolvek/contract';
import { VIEW_LOOKS_AT } from '@tolvek/core/view';
import { lazy, type ReactNode, Suspense } from 'react';
import { Link } from 'react-router';
import { say, told } from '../../wire/words.ts';
import { calledAs, Lines, Sums } from '../times/TimesTold.tsx';

export type ToldPart = AnswerOf<'reportCopy'>['parts'][number];
type Of<Is extends ToldPart['is']> = Extract<ToldPart, { is: Is }>;

// What draws is only fetched where something is drawn.
const ChartView = lazy(async () => ({ default: (await import('../views/ChartView.tsx')).ChartView }));
const Drawn = lazy(async () => ({ default: (await import('../views/ChartView.tsx')).Drawn }));

interface PartProps {
  readonly part: ToldPart;
  /** Shows the rows behind a chart that meet conditions; null where they can’t be shown. */
  readonly rowsOf: ((conditions: readonly string[]) => void) | null;
  /** Where the requests behind service times are shown; null where they can’t be. */
  readonly toTimes: string | null;
}

/** A part of a report, as it is told. */
export function ReportPartTold({ part, rowsOf, toTimes }: PartProps) {
  switch (part.is) {
    case 'words':
      return <p className="max-w-[68ch] whitespace-pre-line text-[15.5px] leading-7">{part.text}</p>;
    case 'missing':
      return <p className="border-l-[3px] border-brass py-1 pl-3 text-soft">{told(part.why)}</p>;
    case 'table':
      return <Table part={part} />;
    case 'chart':
      return (
        <Beside part={part}>
          <Suspense>
            <ChartView shape={part.shape} fields={part.fields} looked={part} {...(rowsOf ? { rowsOf } : {})} />
          </Suspense>
        </Beside>
      );
    case 'figures':
      return <Figures part={part} />;
    case 'times':
      return <Times part={part} to={toTimes} />;
  }
}

/** What a part of a view is of, in words, and the way to it. */
const Beside = ({ part, children }: { part: Of<'table'> | Of<'chart'>; children: ReactNode }) => (
  <>
    <p className="mb-2 text-[13px] text-soft">
      {told(part.says)}{' '}
      <Link to={`/floor/views/${part.view.key}`} className="whitespace-nowrap print:hidden">
        {say('reports:toView')}
      </Link>
    </p>
    {children}
    {part.isAll ? null : <p className="mt-2 text-soft">{say('reports:notAll', { count: VIEW_LOOKS_AT })}</p>}
  </>
);

function Table({ part }: { part: Of<'table'> }) {
  const cell = 'border-b border-rule px-2 py-1.5 text-left align-baseline';
  return (
    <Beside part={part}>
      {part.rows.length === 0 ? (
        <p className="text-soft">{say('reports:nothing')}</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full border-separate border-spacing-0">
            <caption className="sr-only">{part.title || part.view.name}</caption>
            <thead>
              <tr>
                {part.columns.map((column, at) => (
                  <th
                    // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
                    key={at}
                    scope="col"
                    className="border-b border-rule-strong px-2 py-1.5 text-left text-[12px] font-semibold text-soft"
                  >
                    {told(column)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {part.rows.map((row, nth) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
                <tr key={nth}>
                  {row.cells.map((words, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a cell is known by its column
                    <td key={at} className={cell}>
                      {at === 0 ? (
                        <Link to={`/floor/all/${row.number}`}>{told(words) || row.number}</Link>
                      ) : (
                        told(words)
                      )}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {part.more ? (
        <p className="mt-2 text-[13px] text-soft">
          {say('reports:shownOfMore', { shown: part.rows.length, count: part.total })}
        </p>
      ) : part.total > part.rows.length ? (
        <p className="mt-2 text-[13px] text-soft">
          {say('reports:shownOf', { shown: part.rows.length, count: part.total })}
        </p>
      ) : null}
    </Beside>
  );
}

const Figures = ({ part: { figures } }: { part: Of<'figures'> }) =>
  figures.length === 0 ? (
    <p className="text-soft">{say('reports:nothing')}</p>
  ) : (
    <ul className="flex flex-wrap gap-x-10 gap-y-3 border-y border-rule py-3">
      {figures.map(({ label, said }, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a figure is known by its place
        <li key={at} className="flex items-baseline gap-2">
          <span className="font-serif text-[26px] tabular-nums">{told(said) || say('reports:noFigure')}</span>
          <span>{label}</span>
        </li>
      ))}
    </ul>
  );

const COUNTED = { is: 'chart', as: 'bars', each: 'month', parts: null, measure: { is: 'count', of: null } } as const;

/** Those that have some of a figure, the most first. */
const mostFirst = (lines: Of<'times'>['lines'], figure: Exclude<Of<'times'>['shown'], 'lines'>) =>
  lines.filter((line) => line[figure] > 0).sort((a, b) => b[figure] - a[figure]);

/** Service times: all their figures as lines, or one of them as a picture with what it is made of. */
function Times({ part, to }: { part: Of<'times'>; to: string | null }) {
  const { by, shown } = part;
  const isSpan = by === 'week' || by === 'month';
  const lines = isSpan || shown === 'lines' ? part.lines : mostFirst(part.lines, shown);
  const steps = lines.map((line) => ({ value: line.key, label: line.label }));
  const points =
    shown === 'lines'
      ? []
      : lines.map((line, step) => ({ step, part: 0, figure: line[shown], said: '', count: line[shown] }));
  return (
    <>
      {shown === 'lines' ? (
        <>
          <Sums all={part.all} />
          <Lines data={part} by={by} />
        </>
      ) : lines.length === 0 ? (
        <p className="text-soft">{say('reports:nothing')}</p>
      ) : (
        <>
          <Suspense>
            <Drawn
              shape={{ ...COUNTED, by: isSpan ? 'request.arrived' : by }}
              fields={[]}
              looked={{ steps, parts: [], points }}
              parts={['']}
              steps={lines.map((line) => calledAs(line, by))}
              isTime={isSpan}
              open={() => undefined}
            />
          </Suspense>
          <table className="mt-3 border-separate border-spacing-0 tabular-nums">
            <caption className="sr-only">{part.title}</caption>
            <tbody>
              {lines.map((line) => (
                <tr key={line.key}>
                  <th scope="row" className="border-b border-rule py-1 pr-6 text-left font-normal">
                    {calledAs(line, by)}
                  </th>
                  <td className="border-b border-rule py-1 pl-6 text-right">
                    {say('service:count', { count: line[shown] })}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <p className="mt-2 text-[13px] text-soft">
        {[
          ...(shown === 'lines' ? [say('service:how')] : []),
          ...(part.untold > 0 && shown !== 'open' && shown !== 'came'
            ? [say('service:untold', { count: part.untold })]
            : []),
          ...(part.unread > 0 ? [say('service:unread', { count: part.unread })] : []),
          ...(part.isAll ? [] : [say('service:newest')]),
        ].join(' ')}{' '}
        {to === null ? null : (
          <Link to={to} className="whitespace-nowrap print:hidden">
            {say('reports:toTimes')}
          </Link>
        )}
      </p>
    </>
  );
}
