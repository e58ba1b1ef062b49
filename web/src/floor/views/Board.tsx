import { useDroppable } from '@dnd-kit/core';
import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { type BoardShape, calledIn, VIEW_LOOKS_AT, type ViewDesign } from '@tolvek/core/view';
import { toast } from 'sonner';
import { say, told } from '../../wire/words.ts';
import { NO_WAY, type Way, wayTo } from './boardMoves.ts';
import type { ViewRow } from './cells.tsx';
import { Lifting, useLifted } from './lifting.tsx';
import { Liftable, SlipFace } from './Slip.tsx';
import { useMoves } from './useMoves.ts';
import { sumsSaid } from './ViewSums.tsx';

type Looked = AnswerOf<'lookAtBoard'>;
type Valued = Looked['columns'][number];

interface BoardProps {
  readonly view: ViewDesign;
  readonly shape: BoardShape;
  readonly fields: readonly Field[];
  readonly looked: Looked;
  readonly open: string | undefined;
  readonly to: (number: string) => string;
}

const placeId = (column: number, lane: number): string => `${column} ${lane}`;

/** A view as a board: what has the same value stands in one column, and is moved to another by the rules of its sheet. */
export function Board({ view, shape, fields, looked, open, to }: BoardProps) {
  const { columns, lanes, places } = looked;
  const move = useMoves();
  const rows = new Map(places.flatMap((place) => place.rows.map((row) => [row.number, row] as const)));
  const found = (place: string): readonly (readonly [string, Valued])[] => {
    const [column = 0, lane = 0] = place.split(' ').map(Number);
    const wanted = [[shape.by, columns[column]] as const, [shape.lanes ?? '', lanes[lane]] as const];
    return wanted.flatMap(([subject, value]) => (value ? [[subject, value] as const] : []));
  };
  const way = (sheet: AnswerOf<'sheet'>, place: string): Way => {
    const ways = found(place).map(([subject, value]) => wayTo(sheet, subject, value));
    return ways.find((each) => typeof each === 'object') ?? ways.find((each) => each === 'open') ?? 'here';
  };
  const face = (row: ViewRow, isLifted = false) => (
    <SlipFace {...{ row, view, fields, isLifted }} here={row.number === open} without={[shape.by, shape.lanes]} />
  );
  if (looked.more)
    return <p className="px-[22px] py-6 text-soft">{say('views:tooManyForBoard', { count: looked.total })}</p>;
  const width = 'minmax(10.5rem, 1fr)';
  return (
    <div className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
      <Lifting
        wayTo={way}
        put={(sheet, place) =>
          void move(
            sheet,
            found(place).filter(([subject, value]) => wayTo(sheet, subject, value) === 'open'),
          )
        }
        refuse={(why) => toast.error(why)}
        overlay={(number) => {
          const row = rows.get(number);
          return row ? face(row, true) : null;
        }}
      >
        <section
          aria-label={say('views:boardLabel', { by: told(calledIn(shape.by, fields)) })}
          className="grid min-w-fit"
          style={{ gridTemplateColumns: `${lanes.length > 0 ? '8.5rem ' : ''}repeat(${columns.length}, ${width})` }}
        >
          {lanes.length > 0 ? <span className="sticky top-0 left-0 z-20 bg-paper" /> : null}
          {columns.map((column) => (
            <h2
              key={String(column.value)}
              className="sticky top-0 z-10 border-r border-b border-rule border-b-rule-strong bg-paper px-2.5 py-1.5 font-sans text-[13px] font-semibold"
            >
              {told(column.label) || say('views:noValue')}
              <Tally {...{ view, fields }} of={column} />
            </h2>
          ))}
          {(lanes.length > 0 ? lanes : [null]).map((lane, nth) => (
            <div key={String(lane?.value)} className="contents">
              {lane ? (
                <h3 className="subject sticky left-0 z-10 border-b border-rule bg-paper py-1.5 pr-2 text-[16px]">
                  {told(lane.label) || say('views:noValue')}
                  <Tally {...{ view, fields }} of={lane} />
                </h3>
              ) : null}
              {columns.map((column, at) => {
                const place = places.find((each) => each.column === at && each.lane === nth);
                return (
                  <PlaceOf
                    key={String(column.value)}
                    id={placeId(at, nth)}
                    called={[column, ...(lane ? [lane] : [])]
                      .map(({ label }) => told(label) || say('views:noValue'))
                      .join(', ')}
                    way={way}
                  >
                    {place?.rows.map((row) => (
                      <Liftable key={row.number} row={row} to={to(row.number)} here={row.number === open}>
                        {face(row)}
                      </Liftable>
                    ))}
                    {place && place.count > place.rows.length ? (
                      <p className="py-1 text-[13px] text-soft">
                        {say('views:moreHere', { count: place.count - place.rows.length })}
                      </p>
                    ) : null}
                  </PlaceOf>
                );
              })}
            </div>
          ))}
        </section>
      </Lifting>
      {columns.length === 0 ? <p className="py-6 text-soft">{say('views:empty')}</p> : null}
      {looked.isAll ? null : <p className="py-3 text-soft">{say('views:notAll', { count: VIEW_LOOKS_AT })}</p>}
    </div>
  );
}

/** How many have a value, and what they add up to. */
function Tally({ of, view, fields }: { of: Valued; view: ViewDesign; fields: readonly Field[] }) {
  const said = [String(of.count), ...sumsSaid(of.sums, { view, fields })];
  return <small className="block font-sans text-[12.5px] font-normal text-soft">{said.join(' · ')}</small>;
}

interface PlaceOfProps {
  readonly id: string;
  readonly called: string;
  readonly way: (sheet: AnswerOf<'sheet'>, place: string) => Way;
  readonly children: React.ReactNode;
}

/** Where something may be put: while it is lifted, it says whether. */
function PlaceOf({ id, called, way, children }: PlaceOfProps) {
  const { setNodeRef, isOver } = useDroppable({ id, data: { called } });
  const lifted = useLifted();
  const now = lifted?.sheet ? way(lifted.sheet, id) : null;
  const look =
    now === null || now === 'here'
      ? ''
      : now === 'open'
        ? isOver
          ? 'bg-green-wash shadow-[inset_0_0_0_2px_var(--green)]'
          : 'shadow-[inset_0_0_0_1px_var(--green)]'
        : 'hatched';
  return (
    <div ref={setNodeRef} className={`relative min-h-16 border-r border-b border-rule px-2 py-2 ${look}`}>
      {typeof now === 'object' && now !== null && (isOver || now.whyNot !== NO_WAY) ? (
        <p className="absolute inset-x-1 top-1 z-10 bg-paper px-1 text-[12.5px] text-brick">{told(now.whyNot)}</p>
      ) : null}
      <div className="grid gap-1.5">{children}</div>
    </div>
  );
}
