import type { AnswerOf } from '@tolvek/contract';
import type { Field, RawAnswer } from '@tolvek/core/register';
import { isFact, kindIn, type ViewDesign } from '@tolvek/core/view';
import { Link } from 'react-router';
import { ColourMark } from '../../ui/ColourMark.tsx';
import { say } from '../../wire/words.ts';
import { type Block, isWithin } from './block.ts';
import { cellIn } from './cells.tsx';
import { CHANGED, cellKey, FIGURES } from './grid.ts';
import { groupSaid, sumsSaid } from './ViewSums.tsx';

type Looked = AnswerOf<'lookThrough'>;
type Row = Looked['rows'][number];

/** Stands for lines that are not on the page. */
export const Gap = ({ high, columns }: { high: number; columns: number }) => (
  <tr>
    <td colSpan={columns} className="p-0" style={{ height: high }} />
  </tr>
);

interface LineProps {
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  /** Its place among all lines. */
  readonly at: number;
  readonly measure: (element: HTMLElement | null) => void;
}

/** What a group is called, how many rows it has, and what their figures add up to. */
export function GroupHead({
  group,
  view,
  fields,
  at,
  measure,
}: LineProps & { readonly group: Looked['groups'][number] }) {
  return (
    <tr ref={measure} data-index={at}>
      <th
        scope="rowgroup"
        colSpan={view.columns.length}
        className="border-b border-rule-strong px-2 pt-4 pb-1 text-left font-normal"
      >
        <span className="subject text-[16px]">{groupSaid(group)}</span>
        <small className="ml-2 text-[13px] text-soft">
          {[say('views:groupRows', { count: group.count }), ...sumsSaid(group.sums, { view, fields })].join(' · ')}
        </small>
      </th>
    </tr>
  );
}

interface RowProps extends LineProps {
  readonly row: Row;
  /** Whether it is not in the view any more. */
  readonly isAway: boolean;
  /** Its place among the rows. */
  readonly place: number;
  readonly here: boolean;
  readonly to: string;
  /** The column of the cell that takes the keyboard; null where it is in another row. */
  readonly column: number | null;
  readonly begun: Readonly<Record<string, RawAnswer>>;
  /** Why cells could not be changed when several were. */
  readonly wrong: Readonly<Record<string, string>>;
  /** The cells that are reached over. */
  readonly block: Block | null;
  /** Whether it is chosen; null where it can’t be. */
  readonly isChosen: boolean | null;
  readonly choose: (isIn: boolean) => void;
  readonly press: () => void;
  readonly enter: (column: number) => void;
  readonly change: (cell: HTMLElement, subject: string) => void;
}

/** A row: its first cell opens the sheet, the others are changed where they stand. */
export function ViewRow({
  row,
  isAway,
  view,
  fields,
  at,
  place,
  here,
  to,
  column,
  begun,
  wrong,
  block,
  isChosen,
  choose,
  measure,
  enter,
  press,
  change,
}: RowProps) {
  const mark = row.mark === null ? undefined : view.marks[row.mark];
  return (
    <tr
      ref={measure}
      data-index={at}
      data-number={row.number}
      aria-rowindex={place + 2}
      aria-current={here ? 'true' : undefined}
      className="group"
      style={mark ? { background: `color-mix(in srgb, var(--mark-${mark.colour}) 13%, var(--paper))` } : undefined}
    >
      {view.columns.map(({ of }, nth) => {
        const isFigure = FIGURES.has(kindIn(of, fields) ?? '');
        const content = cellIn(row, of, view);
        const isBegun = begun[cellKey(row.number, of)] !== undefined;
        const why = wrong[cellKey(row.number, of)];
        const isIn = block !== null && block.rows * block.columns > 1 && isWithin(block, { row: place, column: nth });
        return (
          // biome-ignore lint/a11y/useAriaPropsSupportedByRole: a cell of a grid can be selected (WAI-ARIA 1.2)
          <td
            key={of}
            tabIndex={column === nth ? 0 : -1}
            title={isBegun ? say('views:notSaved') : why}
            aria-selected={isIn || undefined}
            style={nth === 0 && mark && !here ? { background: 'inherit' } : undefined}
            className={`h-8 truncate border-b px-2 py-1 align-middle outline-offset-[-2px] focus:outline-2 focus:outline-green ${isIn ? 'bg-green-wash' : ''} ${here ? 'border-green bg-sheet' : nth === 0 ? 'border-rule bg-paper' : 'border-rule'} ${nth === 0 ? 'sticky left-0 z-[5]' : ''} ${isFigure ? 'text-right tabular-nums' : ''} ${nth === 0 && here ? 'shadow-[inset_3px_0_var(--green)]' : isBegun ? 'shadow-[inset_0_-2px_var(--brass)]' : why ? 'shadow-[inset_0_-2px_var(--brick)]' : ''}`}
            onFocus={() => enter(nth)}
            onPointerDown={press}
            onDoubleClick={({ currentTarget }) => {
              if (nth > 0 && (!isFact(of) || CHANGED.has(of))) change(currentTarget, of);
            }}
          >
            {nth === 0 && isChosen !== null ? (
              <input
                type="checkbox"
                tabIndex={-1}
                className="mr-2 size-[15px] align-[-2px] accent-green"
                aria-label={say('floor:chooseOne', { number: row.number })}
                checked={isChosen}
                onChange={({ target }) => choose(target.checked)}
              />
            ) : null}
            {nth === 0 ? (
              <Link to={to} tabIndex={-1} className="text-ink no-underline group-hover:underline">
                {mark ? (
                  <span className="mr-2 text-[12.5px] font-semibold">
                    <ColourMark colour={mark.colour} />
                    {mark.word}
                  </span>
                ) : null}
                {content || row.number}
                {isAway ? (
                  <small className="ml-2 text-[12.5px] text-soft italic">{say('views:news.away')}</small>
                ) : null}
              </Link>
            ) : (
              content
            )}
          </td>
        );
      })}
    </tr>
  );
}
