import type { AnswerOf } from '@tolvek/contract';
import type { Scope } from '@tolvek/core/expression';
import {
  CELLS,
  type ChartShape,
  type MatrixCell,
  type MatrixShape,
  MEASURES,
  MOST_OF_VIEW,
  shapeSaid,
  type ViewDesign,
  type ViewShape,
} from '@tolvek/core/view';
import { type ReactNode, useId } from 'react';
import { say, told } from '../../wire/words.ts';
import { Part } from './Part.tsx';
import { Choice, GoesBy, WordChoice } from './ShapeParts.tsx';
import { TotalsEditor } from './TotalsEditor.tsx';
import { totalsBy } from './totals.ts';
import { subjectsFor } from './viewDraft.ts';

interface ShapesProps {
  readonly view: ViewDesign;
  readonly nameable: AnswerOf<'nameable'>;
  readonly scope: Scope;
  readonly at: number;
  readonly choose: (at: number) => void;
  readonly set: (view: ViewDesign) => void;
  /** What else is done with what is seen. */
  readonly children: ReactNode;
}

/** How a view is looked at: one way after the other, and what else there could be. */
export function Shapes({ view, nameable, scope, at, choose, set, children }: ShapesProps) {
  const { fields, closed } = nameable;
  const boards = subjectsFor('boards', fields, closed);
  const dates = subjectsFor('dates', fields, closed);
  const others: readonly ViewShape[] = [
    { is: 'table' },
    ...boards.map((by): ViewShape => ({ is: 'board', by, lanes: null })),
    ...dates.map((from): ViewShape => ({ is: 'calendar', from, to: null, lines: null })),
    ...boards.map((by): ViewShape => chartBy(by, 'bars')),
    ...dates.map((by): ViewShape => chartBy(by, 'line')),
    ...[...boards, ...dates].map((by) => totalsBy(by, fields)),
    ...subjectsFor('pictures', fields).map((picture): ViewShape => ({ is: 'gallery', picture })),
    ...boards.slice(0, 1).flatMap((down) => boards.slice(1, 2).map((across) => matrixOf(down, across))),
  ];
  const add = (shape: ViewShape): void => {
    set({ ...view, shapes: [...view.shapes, shape] });
    choose(view.shapes.length);
  };
  const here = view.shapes[at];
  return (
    <div className="mb-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-rule-strong">
      <nav aria-label={say('views:shapes')} className="flex flex-wrap items-baseline gap-x-5">
        {view.shapes.map((shape, place) => (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: a shape is known by its place
            key={place}
            type="button"
            aria-current={place === at ? 'true' : undefined}
            className={`min-h-7 border-b-[3px] ${place === at ? 'border-green font-semibold' : 'border-transparent text-soft hover:text-ink'}`}
            onClick={() => choose(place)}
          >
            {told(shapeSaid(shape, fields))}
          </button>
        ))}
      </nav>
      {view.shapes.length < MOST_OF_VIEW.shapes ? (
        <span className="text-[13px]">
          <Part words={say('views:otherShape')} label={say('views:otherShape')} isFaint>
            <ul className="grid grid-cols-2 gap-x-6">
              {others.map((shape) => {
                const words = told(shapeSaid(shape, fields));
                return (
                  <li key={words} className="border-b border-rule">
                    <button
                      type="button"
                      className="min-h-7 w-full text-left hover:text-green"
                      onClick={() => add(shape)}
                    >
                      {words}
                    </button>
                  </li>
                );
              })}
            </ul>
          </Part>
        </span>
      ) : null}
      {here && (here.is !== 'table' || view.shapes.length > 1) ? (
        <span className="text-[13px]">
          <Part words={say('views:changeShape')} label={told(shapeSaid(here, fields))} isFaint>
            <ShapeEditor
              shape={here}
              nameable={nameable}
              scope={scope}
              set={(shape) => set({ ...view, shapes: view.shapes.with(at, shape) })}
              first={
                at === 0
                  ? null
                  : () => {
                      set({ ...view, shapes: [here, ...view.shapes.toSpliced(at, 1)] });
                      choose(0);
                    }
              }
              remove={
                view.shapes.length === 1
                  ? null
                  : () => {
                      set({ ...view, shapes: view.shapes.toSpliced(at, 1) });
                      choose(0);
                    }
              }
            />
          </Part>
        </span>
      ) : null}
      <span className="ml-auto flex gap-x-5 text-[13px] [&>button]:min-h-[24px]">{children}</span>
    </div>
  );
}

const chartBy = (by: string, as: ChartShape['as']): ChartShape => ({
  ...{ is: 'chart', as, by, each: 'month', parts: null, measure: { is: 'count', of: null } },
});

const matrixOf = (down: string, across: string): MatrixShape => ({
  ...{ is: 'matrix', down, across, cell: { is: 'count', of: null }, wanted: null, fresh: null },
});

interface EditorProps {
  readonly shape: ViewShape;
  readonly nameable: AnswerOf<'nameable'>;
  readonly scope: Scope;
  readonly set: (shape: ViewShape) => void;
  readonly first: (() => void) | null;
  readonly remove: (() => void) | null;
}

function ShapeEditor({ shape, nameable, scope, set, first, remove }: EditorProps) {
  const { fields, closed } = nameable;
  const boards = subjectsFor('boards', fields, closed);
  const dates = subjectsFor('dates', fields, closed);
  return (
    <>
      <div className="grid grid-cols-[8rem_1fr] items-center gap-x-4 gap-y-2">
        {shape.is === 'board' ? (
          <>
            <Choice
              label={say('views:columnsBy')}
              value={shape.by}
              among={boards}
              {...{ fields }}
              choose={(by) => set({ ...shape, by, lanes: shape.lanes === by ? null : shape.lanes })}
            />
            <Choice
              label={say('views:lanesBy')}
              value={shape.lanes}
              among={boards.filter((each) => each !== shape.by)}
              none={say('views:noLanes')}
              {...{ fields }}
              choose={(lanes) => set({ ...shape, lanes: lanes || null })}
            />
          </>
        ) : null}
        {shape.is === 'calendar' ? (
          <>
            <Choice
              label={say('views:daysFrom')}
              value={shape.from}
              among={dates}
              {...{ fields }}
              choose={(from) => set({ ...shape, from })}
            />
            <Choice
              label={say('views:daysTo')}
              value={shape.to}
              among={dates.filter((each) => each !== shape.from)}
              none={say('views:oneDay')}
              {...{ fields }}
              choose={(to) => set({ ...shape, to: to || null })}
            />
            <Choice
              label={say('views:linesBy')}
              value={shape.lines}
              among={boards}
              none={say('views:noLines')}
              {...{ fields }}
              choose={(lines) => set({ ...shape, lines: lines || null })}
            />
          </>
        ) : null}
        {shape.is === 'gallery' ? (
          <Choice
            label={say('views:pictureFrom')}
            value={shape.picture}
            among={subjectsFor('pictures', fields)}
            {...{ fields }}
            choose={(picture) => set({ ...shape, picture })}
          />
        ) : null}
        {shape.is === 'totals' ? <TotalsEditor {...{ shape, nameable, scope, set }} /> : null}
        {shape.is === 'matrix' ? <MatrixEditor {...{ shape, fields, boards, dates, closed, set }} /> : null}
        {shape.is === 'chart' ? <ChartEditor {...{ shape, fields, closed, set }} /> : null}
      </div>
      <p className="mt-3 flex gap-4">
        {first ? (
          <button type="button" className="min-h-6 text-green underline" onClick={first}>
            {say('views:opensWith')}
          </button>
        ) : null}
        {remove ? (
          <button type="button" className="min-h-6 text-green underline" onClick={remove}>
            {say('views:removeShape')}
          </button>
        ) : null}
      </p>
    </>
  );
}

interface ChartEditorProps {
  readonly shape: ChartShape;
  readonly fields: AnswerOf<'nameable'>['fields'];
  readonly closed: AnswerOf<'nameable'>['closed'];
  readonly set: (shape: ViewShape) => void;
}

/** What a chart measures, for what, and how it is drawn. */
function ChartEditor({ shape, fields, closed, set }: ChartEditorProps) {
  const sums = subjectsFor('sums', fields, closed);
  const { measure } = shape;
  const [first] = sums;
  return (
    <>
      <WordChoice
        label={say('views:measures')}
        value={measure.is}
        among={MEASURES.filter((each) => each === 'count' || first !== undefined)}
        said={(each) => say(`views:is.${each}`)}
        choose={(is) => set({ ...shape, measure: { is, of: is === 'count' ? null : (measure.of ?? first ?? null) } })}
      />
      {measure.of === null ? null : (
        <Choice
          label={say('views:measureOf')}
          value={measure.of}
          among={sums}
          fields={fields}
          choose={(of) => set({ ...shape, measure: { ...measure, of } })}
        />
      )}
      <GoesBy
        going={shape}
        nameable={{ fields, closed }}
        within={say('views:partedBy')}
        set={(going) => set({ ...shape, ...going })}
      />
      <WordChoice
        label={say('views:drawnAs')}
        value={shape.as}
        among={['bars', 'line'] as const}
        said={(each) => say(`views:as.${each}`)}
        choose={(as) => set({ ...shape, as })}
      />
    </>
  );
}

interface MatrixEditorProps extends Omit<ChartEditorProps, 'shape' | 'set'> {
  readonly shape: MatrixShape;
  readonly boards: readonly string[];
  readonly dates: readonly string[];
  readonly set: (shape: MatrixShape) => void;
}

/** What stands across and down of a matrix, what its cells tell, how much is wanted, and what keeps it fresh. */
function MatrixEditor({ shape, fields, closed, boards, dates, set }: MatrixEditorProps) {
  const id = useId();
  const { cell, wanted, fresh } = shape;
  const measures = subjectsFor('measures', fields, closed);
  const all = fields.map(({ key }) => key);
  const among = cell.is === 'newest' ? all : measures;
  const first = (is: MatrixCell['is']): string | null => (is === 'newest' ? all : measures)[0] ?? null;
  return (
    <>
      <Choice
        label={say('views:downBy')}
        value={shape.down}
        among={boards.filter((each) => each !== shape.across)}
        fields={fields}
        choose={(down) => set({ ...shape, down })}
      />
      <Choice
        label={say('views:acrossBy')}
        value={shape.across}
        among={boards.filter((each) => each !== shape.down)}
        fields={fields}
        choose={(across) => set({ ...shape, across })}
      />
      <WordChoice
        label={say('views:inCells')}
        value={cell.is}
        among={CELLS.filter((is) => is === 'count' || first(is) !== null)}
        said={(is) => say(`views:is.${is}`)}
        choose={(is) =>
          set({
            ...shape,
            cell: {
              is,
              of:
                is === 'count'
                  ? null
                  : cell.of !== null && is !== 'newest' && measures.includes(cell.of)
                    ? cell.of
                    : first(is),
            },
          })
        }
      />
      {cell.of === null ? null : (
        <Choice
          label={say('views:measureOf')}
          value={cell.of}
          among={among}
          fields={fields}
          choose={(of) => set({ ...shape, cell: { ...cell, of } })}
        />
      )}
      <label htmlFor={`${id}-wanted`} className="text-soft">
        {say('views:wantedCells')}
      </label>
      <span className="flex items-center gap-3">
        <input
          id={`${id}-wanted`}
          type="number"
          min={0}
          max={1000}
          className="input w-20"
          value={wanted?.cells ?? 0}
          onChange={({ target }) => {
            const cells = Math.trunc(Number(target.value));
            set({ ...shape, wanted: cells >= 1 ? { figure: wanted?.figure ?? 1, cells } : null });
          }}
        />
        {wanted ? (
          <>
            <label htmlFor={`${id}-figure`} className="text-soft">
              {say('views:wantedFigure')}
            </label>
            <input
              id={`${id}-figure`}
              type="number"
              className="input w-24"
              value={wanted.figure}
              onChange={({ target }) => set({ ...shape, wanted: { ...wanted, figure: Number(target.value) } })}
            />
          </>
        ) : null}
      </span>
      <Choice
        label={say('views:fresh')}
        value={fresh?.of ?? null}
        among={dates}
        none={say('views:noFresh')}
        fields={fields}
        choose={(of) => set({ ...shape, fresh: of === '' ? null : { of, days: fresh?.days ?? 365 } })}
      />
      {fresh ? (
        <>
          <label htmlFor={`${id}-days`} className="text-soft">
            {say('views:freshDays')}
          </label>
          <input
            id={`${id}-days`}
            type="number"
            min={1}
            max={36500}
            className="input w-24"
            value={fresh.days}
            onChange={({ target }) =>
              set({
                ...shape,
                fresh: { ...fresh, days: Math.min(36_500, Math.max(1, Math.trunc(Number(target.value)))) },
              })
            }
          />
        </>
      ) : null}
    </>
  );
}
