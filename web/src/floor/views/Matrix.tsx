import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { calledIn, conditionFor, type MatrixShape, VIEW_LOOKS_AT } from '@tolvek/core/view';
import { Link } from 'react-router';
import { say, told } from '../../wire/words.ts';

type Looked = AnswerOf<'lookAtMatrix'>;
type Cell = Looked['cells'][number];

interface MatrixProps {
  readonly shape: MatrixShape;
  readonly fields: readonly Field[];
  readonly looked: Looked;
  readonly open: string | undefined;
  readonly to: (number: string) => string;
  /** Shows the rows that meet conditions. */
  readonly rowsOf: (conditions: readonly string[]) => void;
}

/** A view as a matrix: what stands where two things meet, where too few are, who is the only one, and what is stale. */
export function Matrix({ shape, fields, looked, open, to, rowsOf }: MatrixProps) {
  if (looked.more)
    return <p className="px-[22px] py-6 text-soft">{say('views:tooManyForMatrix', { count: looked.total })}</p>;
  if (looked.cells.length === 0) return <p className="px-[22px] py-6 text-soft">{say('views:empty')}</p>;
  const called = (label: Looked['down'][number]['label']): string => told(label) || say('views:noValue');
  const cells = new Map(looked.cells.map((cell) => [`${cell.down} ${cell.across}`, cell]));
  const lines = looked.down
    .map((line, at) => ({ ...line, at }))
    .filter(({ at }) => looked.cells.some((cell) => cell.down === at));
  const { wanted } = shape;
  const isOnly = ({ across, figure }: Cell): boolean =>
    wanted !== null && looked.across[across]?.enough === 1 && figure !== null && figure >= wanted.figure;
  return (
    <div className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
      <table
        className="border-separate border-spacing-0 tabular-nums"
        aria-label={say('views:matrixOf', {
          down: told(calledIn(shape.down, fields)),
          across: told(calledIn(shape.across, fields)),
        })}
      >
        <thead>
          <tr>
            <td className="sticky top-0 left-0 z-20 border-b border-rule-strong bg-paper" />
            {looked.across.map((column) => (
              <th
                key={String(column.value)}
                scope="col"
                className="sticky top-0 z-10 min-w-20 border-b border-rule-strong bg-paper px-3 py-1.5 text-left text-[12.5px] font-semibold"
              >
                {called(column.label)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={String(line.value)}>
              <th
                scope="row"
                className="sticky left-0 z-10 border-b border-rule bg-paper py-1 pr-6 text-left font-normal whitespace-nowrap"
              >
                {called(line.label)}
              </th>
              {looked.across.map((column, at) => {
                const cell = cells.get(`${line.at} ${at}`);
                return (
                  <td
                    key={String(column.value)}
                    className={`border-b px-3 py-1 ${cell && isOnly(cell) ? 'border-b-2 border-brass-mark' : 'border-rule'}`}
                  >
                    {cell ? (
                      <CellOf
                        cell={cell}
                        isOnly={isOnly(cell)}
                        here={cell.number !== null && cell.number === open}
                        what={`${called(line.label)}, ${called(column.label)}`}
                        to={cell.number === null ? null : to(cell.number)}
                        show={() =>
                          rowsOf([
                            conditionFor(shape.down, line.value, fields),
                            conditionFor(shape.across, column.value, fields),
                          ])
                        }
                      />
                    ) : null}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
        {wanted ? (
          <tfoot>
            <tr>
              <th
                scope="row"
                className="sticky bottom-0 left-0 z-20 border-t border-rule-strong bg-paper py-1.5 pr-6 text-left text-[13px] font-normal text-soft"
              >
                {say('views:enough', { figure: wanted.figure })}
              </th>
              {looked.across.map(({ value, enough }) => {
                const count = enough ?? 0;
                const isShort = count < wanted.cells;
                return (
                  <td
                    key={String(value)}
                    className={`sticky bottom-0 border-t border-rule-strong px-3 py-1.5 text-[13px] ${isShort ? 'bg-brick-wash font-semibold text-brick' : 'bg-paper text-soft'}`}
                  >
                    {say(isShort ? 'views:missing' : 'views:enoughOf', { count, cells: wanted.cells })}
                  </td>
                );
              })}
            </tr>
          </tfoot>
        ) : null}
      </table>
      <p className="mt-2 text-[13px] text-soft">
        {say('views:matrixHint')} {looked.isAll ? null : say('views:notAll', { count: VIEW_LOOKS_AT })}
      </p>
    </div>
  );
}

interface CellOfProps {
  readonly cell: Cell;
  readonly isOnly: boolean;
  readonly here: boolean;
  readonly what: string;
  readonly to: string | null;
  readonly show: () => void;
}

function CellOf({ cell, isOnly, here, what, to, show }: CellOfProps) {
  const content = told(cell.said) || '–';
  const more = [
    ...(cell.stale === null ? [] : [say('views:staleSince', { day: cell.stale })]),
    ...(isOnly ? [say('views:onlyOne')] : []),
  ];
  const look = `${cell.stale === null ? 'text-ink' : 'text-brass italic'} ${here ? 'font-semibold' : ''}`;
  const label = `${what}: ${[content, ...more].join(', ')}`;
  const inside = (
    <>
      {content}
      {more.length > 0 ? <small className="ml-1.5 text-[12px] text-soft not-italic">{more.join(', ')}</small> : null}
    </>
  );
  return to === null ? (
    <button
      type="button"
      className={`inline-block min-h-6 min-w-6 text-left underline decoration-dotted ${look}`}
      aria-label={label}
      onClick={show}
    >
      {inside}
    </button>
  ) : (
    <Link
      to={to}
      className={`inline-block min-h-6 min-w-6 no-underline hover:underline ${look}`}
      aria-label={label}
      aria-current={here ? 'true' : undefined}
    >
      {inside}
    </Link>
  );
}
