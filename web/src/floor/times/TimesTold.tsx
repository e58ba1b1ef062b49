import type { AnswerOf, QueryOf } from '@tolvek/contract';
import type { SERVED_BY } from '@tolvek/core/service';
import { say, told } from '../../wire/words.ts';

type Told = AnswerOf<'serviceTimes'>;
type Line = Told['lines'][number];
type By = (typeof SERVED_BY)[number];
type Figure = QueryOf<'servedRows'>['figure'];

/** What a line is called. */
export const calledAs = (line: Line, by: By): string => told(line.label) || say(`service:none.${by}`);

/** What came, went and is open, and how long it took, of all. */
export function Sums({ all, choose }: { all: Line; choose?: (figure: Figure) => void }) {
  const promised = all.inTime + all.late;
  const share = promised === 0 ? null : Math.round((all.inTime / promised) * 100);
  return (
    <ul className="mt-5 flex flex-wrap gap-x-9 gap-y-3 border-y border-rule py-3">
      {(['came', 'went', 'open', 'late'] as const).map((figure) => (
        <li key={figure} className="flex items-baseline gap-2">
          <Figured {...{ figure, count: all[figure] }} {...(choose ? { choose } : {})} isLarge />
          <span>{say(`service:${figure}`)}</span>
        </li>
      ))}
      {[
        { says: share === null ? '' : say('service:percent', { share }), what: say('service:inTime') },
        { says: all.first ? say('service:length', { length: all.first.median }) : '', what: say('service:toFirst') },
        { says: all.finish ? say('service:length', { length: all.finish.median }) : '', what: say('service:toEnd') },
      ]
        .filter(({ says }) => says !== '')
        .map(({ says, what }) => (
          <li key={what} className="flex items-baseline gap-2">
            <span className="font-serif text-[26px] tabular-nums">{says}</span>
            <span>{what}</span>
          </li>
        ))}
    </ul>
  );
}

interface FiguredProps {
  readonly figure: Figure;
  readonly count: number;
  /** Shows the requests behind it, where that can be. */
  readonly choose?: (figure: Figure) => void;
  readonly isLarge?: boolean;
}

/** A figure that leads to the requests behind it. */
function Figured({ figure, count, choose, isLarge = false }: FiguredProps) {
  const look = `inline-block min-w-[24px] text-right tabular-nums ${isLarge ? 'font-serif text-[26px]' : ''} ${figure === 'late' && count > 0 ? 'text-brick' : ''}`;
  if (count === 0 || !choose)
    return <span className={`${look} ${count === 0 ? 'text-soft' : ''}`}>{say('service:count', { count })}</span>;
  return (
    <button
      type="button"
      className={`min-h-[24px] underline decoration-dotted underline-offset-[3px] ${look}`}
      aria-label={say('service:behind', { count, what: say(`service:${figure}`) })}
      onClick={() => choose(figure)}
    >
      {say('service:count', { count })}
    </button>
  );
}

interface LinesProps {
  readonly data: Pick<Told, 'lines'>;
  readonly by: By;
  readonly choose?: (line: Line, figure: Figure) => void;
}

/** A line for what they are put together by. */
export function Lines({ data: { lines }, by, choose }: LinesProps) {
  if (lines.length === 0) return <p className="mt-6 text-soft">{say('service:nothing')}</p>;
  const cell = 'border-b border-rule px-2 py-1.5 align-baseline';
  const figure = `${cell} text-right tabular-nums`;
  const head = 'border-b border-rule-strong px-2 py-1.5 text-[11.5px] font-semibold text-soft';
  return (
    <div className="mt-6 overflow-x-auto">
      <table className="w-full border-separate border-spacing-0">
        <caption className="sr-only">{say('service:title')}</caption>
        <thead>
          <tr>
            <th scope="col" rowSpan={2} className={`${head} text-left align-bottom first-letter:uppercase`}>
              {say(`service:by.${by}`)}
            </th>
            {(['came', 'went', 'open', 'late'] as const).map((each) => (
              <th key={each} scope="col" rowSpan={2} className={`${head} text-right align-bottom`}>
                {say(`service:head.${each}`)}
              </th>
            ))}
            <th scope="colgroup" colSpan={2} className={`${head} border-rule text-left`}>
              {say('service:head.first')}
            </th>
            <th scope="colgroup" colSpan={2} className={`${head} border-rule text-left`}>
              {say('service:head.finish')}
            </th>
            <th scope="col" rowSpan={2} className={`${head} text-left align-bottom`}>
              {say('service:head.paused')}
            </th>
          </tr>
          <tr>
            {(['first', 'finish'] as const).flatMap((each) =>
              (['half', 'most'] as const).map((part) => (
                <th key={`${each} ${part}`} scope="col" className={`${head} text-left`}>
                  {say(`service:head.${part}`)}
                </th>
              )),
            )}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.key}>
              <th scope="row" className={`${cell} subject text-left text-[15px] font-normal`}>
                {calledAs(line, by)}
              </th>
              {(['came', 'went', 'open', 'late'] as const).map((each) => (
                <td key={each} className={figure}>
                  <Figured
                    figure={each}
                    count={line[each]}
                    {...(choose ? { choose: (one: Figure) => choose(line, one) } : {})}
                  />
                </td>
              ))}
              {(['first', 'finish'] as const).flatMap((to) =>
                (['median', 'most'] as const).map((part) => {
                  const length = line[to]?.[part];
                  return (
                    <td key={`${to} ${part}`} className={`${cell} ${part === 'most' ? 'text-soft' : ''}`}>
                      {length ? say('service:length', { length }) : ''}
                    </td>
                  );
                }),
              )}
              <td className={`${cell} text-soft`}>
                {line.paused && !isNone(line.paused) ? say('service:length', { length: line.paused }) : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const isNone = (length: NonNullable<Line['paused']>): boolean => 'minutes' in length && length.minutes === 0;
