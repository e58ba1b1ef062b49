import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import type { AnswerOf } from '@tolvek/contract';
import type { Field, RawAnswer } from '@tolvek/core/register';
import { calledIn, isFact, kindIn, VIEW_LOOKS_AT, type ViewDesign } from '@tolvek/core/view';
import { Fragment, type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { ColourMark } from '../../ui/ColourMark.tsx';
import { say, told } from '../../wire/words.ts';
import { useRowKeys } from '../useRowKeys.ts';
import { CellEditor } from './CellEditor.tsx';
import { cellIn } from './cells.tsx';
import { type Cursor, cursorIn, linesOf, resized, stepFrom, WIDTHS, widthOf } from './grid.ts';
import { originOf } from './viewDraft.ts';

type Looked = AnswerOf<'lookThrough'>;
type Row = Looked['rows'][number];

interface ViewTableProps {
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  readonly pages: readonly Looked[];
  readonly open: string | undefined;
  readonly to: (number: string) => string;
  readonly more: (() => void) | null;
  readonly isLoading: boolean;
  /** Changes the view; nothing is saved by it. */
  readonly set: (view: ViewDesign) => void;
}

/** Kinds that stand at the right of their columns, so that figures can be compared. */
const FIGURES: ReadonlySet<string> = new Set(['number', 'money', 'duration']);
/** Kinds into which a letter or a text that is pasted is typed. */
const TYPED: ReadonlySet<string> = new Set([
  'text',
  'long-text',
  'number',
  'money',
  'email',
  'phone',
  'link',
  'duration',
]);
/** Facts that are changed in their cells. */
const CHANGED: ReadonlySet<string> = new Set(['request.stage', 'request.handler', 'request.team', 'request.priority']);

/** Lines that are there above and below what is seen. */
const BEYOND = 12;
/** Lines before the last at which more are fetched. */
const AHEAD = 30;
/** How high a line is before it is measured, px. */
const HIGH = 30;

/** What is changed in a cell just now, or was begun there. */
const cellKey = (number: string, subject: string): string => `${number} ${subject}`;

/**
 * The rows of a view, in its groups: only those that are seen are on the page. Arrow keys go through the cells, Enter changes
 * one or opens the request, J and K open the next and the previous one.
 */
export function ViewTable({ view, fields, pages, open, to, more, isLoading, set }: ViewTableProps) {
  const navigate = useNavigate();
  const pane = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  /** Whether the cell one is in is to take the keyboard. */
  const wanted = useRef(false);
  const rows = useMemo(() => pages.flatMap((page) => page.rows), [pages]);
  const [first] = pages;
  const groups = first?.groups;
  const lines = useMemo(() => linesOf(rows, groups ?? []), [rows, groups]);
  useRowKeys(rows, open, (number) => void navigate(to(number)));
  const [at, setAt] = useState<Cursor | null>(null);
  const cursor = cursorIn(at, rows);
  const [editing, setEditing] = useState<{
    readonly cell: HTMLElement;
    readonly number: string;
    readonly subject: string;
  } | null>(null);
  // What is typed stays, whatever becomes of the cell meanwhile.
  const [begun, setBegun] = useState<Readonly<Record<string, RawAnswer>>>({});
  const lineOf = (number: string | undefined): number =>
    lines.findIndex((line) => line.is === 'row' && line.row.number === number);
  const kept = cursor ? lineOf(cursor.number) : -1;
  const seen = useVirtualizer({
    count: lines.length,
    getScrollElement: () => pane.current,
    estimateSize: () => HIGH,
    overscan: BEYOND,
    // The cell that has the keyboard stays on the page.
    rangeExtractor: (range) => {
      const shown = defaultRangeExtractor(range);
      return kept === -1 || shown.includes(kept) ? shown : [...shown, kept].sort((a, b) => a - b);
    },
  });
  const shown = seen.getVirtualItems();
  const last = shown.at(-1)?.index ?? -1;
  useEffect(() => {
    if (more && !isLoading && last >= lines.length - AHEAD) more();
  }, [more, isLoading, last, lines.length]);
  const openLine = lineOf(open);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is gone to when another one opens, not when rows come
  useEffect(() => {
    if (openLine !== -1) seen.scrollToIndex(openLine, { align: 'auto' });
  }, [open]);
  const focus = ({ row, column }: Pick<Cursor, 'row' | 'column'>): void => {
    const number = rows[row]?.number ?? '';
    setAt({ row, column, number });
    wanted.current = true;
    // The row may come onto the page by this.
    seen.scrollToIndex(lineOf(number), { align: 'auto' });
  };
  // The cell takes the keyboard as soon as it is there.
  useEffect(() => {
    const cell = wanted.current && cursor ? cellAt(body.current, cursor.number, cursor.column) : undefined;
    if (!cell) return;
    wanted.current = false;
    cell.focus({ preventScroll: true });
    cell.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  });
  const type = (key: string, typed: (before: RawAnswer | undefined) => RawAnswer | undefined): void =>
    setBegun(({ [key]: before, ...others }) => {
      const now = typed(before);
      return now === undefined ? others : { ...others, [key]: now };
    });
  const change = (cell: HTMLElement, number: string, subject: string, typed?: string): void => {
    // Letters that come before the field has the keyboard are not lost.
    const isOpen = editing?.number === number && editing.subject === subject;
    if (typed !== undefined)
      type(cellKey(number, subject), (before) => (isOpen && typeof before === 'string' ? before + typed : typed));
    if (!isOpen) setEditing({ cell, number, subject });
  };
  const takesText = (subject: string): boolean => !isFact(subject) && TYPED.has(kindIn(subject, fields) ?? '');
  const onKey = (event: KeyboardEvent<HTMLElement>): void => {
    const cell = (event.target as HTMLElement).closest('td');
    if (!cursor || !cell || event.altKey) return;
    const subject = view.columns[cursor.column]?.of ?? '';
    const isCommand = event.ctrlKey || event.metaKey;
    const step = stepFrom(cursor, event.key, { rows: rows.length, columns: view.columns.length }, isCommand);
    const isLetter = event.key.length === 1 && !isCommand && takesText(subject) && event.key !== ' ';
    if (step) focus(step);
    else if (event.key === 'Enter' || event.key === 'F2') {
      if (cursor.column === 0 && event.key === 'Enter') navigate(to(cursor.number));
      else if (!isFact(subject) || CHANGED.has(subject)) change(cell, cursor.number, subject);
    } else if (isLetter && cursor.column > 0) change(cell, cursor.number, subject, event.key);
    else if (isCommand && event.key.toLowerCase() === 'c' && getSelection()?.isCollapsed !== false)
      void navigator.clipboard?.writeText(cell.textContent ?? '');
    else return;
    event.preventDefault();
    // J, K and the arrows do something else where no cell has the keyboard.
    event.stopPropagation();
  };
  const onPaste = (event: React.ClipboardEvent<HTMLElement>): void => {
    const cell = (event.target as HTMLElement).closest('td');
    const subject = view.columns[cursor?.column ?? 0]?.of ?? '';
    if (!cursor || cursor.column === 0 || !cell || !takesText(subject)) return;
    event.preventDefault();
    change(cell, cursor.number, subject, event.clipboardData.getData('text/plain').trim());
  };
  if (!first) return null;
  const isFigure = (subject: string): boolean => FIGURES.has(kindIn(subject, fields) ?? '');
  const widths = view.columns.map((column) => widthOf(column, fields));
  const sumOf = (place: number) => first.sums.find(({ column }) => column === place)?.sum;
  let above = 0;
  return (
    <div
      ref={pane}
      className="mt-2 min-h-0 flex-1 scroll-pt-9 scroll-pb-9 overflow-auto px-[22px] pb-6 contain-content"
      // What the first column covers is not seen.
      style={{ scrollPaddingLeft: (widths[0] ?? 0) + 22 }}
    >
      <table
        // biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: cells are gone through and changed (ARIA grid)
        role="grid"
        className="table-fixed border-separate border-spacing-0"
        style={{ width: `max(100%, ${widths.reduce((sum, each) => sum + each, 0)}px)` }}
        aria-label={say('views:rowsLabel')}
        aria-description={say('views:gridHint')}
        aria-rowcount={first.more ? -1 : first.total}
        onKeyDown={onKey}
        onPaste={onPaste}
      >
        <colgroup>
          {view.columns.map(({ of }, place) => (
            <col key={of} style={{ width: widths[place] }} />
          ))}
        </colgroup>
        <thead>
          <tr>
            {view.columns.map(({ of }, place) => (
              <Head
                key={of}
                {...{ of, fields, place, isFigure: isFigure(of), width: widths[place] ?? 0 }}
                resize={(width) => set(resized(view, of, width))}
              />
            ))}
          </tr>
        </thead>
        <tbody ref={body}>
          {shown.map((item) => {
            const line = lines[item.index];
            const gap = item.start - above;
            above = item.end;
            if (!line) return null;
            return (
              <Fragment key={item.key}>
                {gap > 0 ? <Gap high={gap} columns={view.columns.length} /> : null}
                {line.is === 'group' ? (
                  <GroupHead group={line.group} {...{ view, fields, at: item.index, measure: seen.measureElement }} />
                ) : (
                  <ViewRow
                    row={line.row}
                    here={line.row.number === open}
                    to={to(line.row.number)}
                    {...{ view, fields, place: line.at, at: item.index, measure: seen.measureElement, begun }}
                    column={cursor?.row === line.at ? cursor.column : cursor === null && line.at === 0 ? 0 : null}
                    enter={(column) => setAt({ row: line.at, number: line.row.number, column })}
                    change={(cell, subject) => change(cell, line.row.number, subject)}
                  />
                )}
              </Fragment>
            );
          })}
          {seen.getTotalSize() > above ? (
            <Gap high={seen.getTotalSize() - above} columns={view.columns.length} />
          ) : null}
        </tbody>
        {first.sums.length > 0 && rows.length > 0 ? (
          <tfoot>
            <tr>
              {view.columns.map(({ of }, place) => (
                <td
                  key={of}
                  className={`sticky bottom-0 z-10 truncate border-t border-rule-strong bg-paper px-2 py-1.5 font-semibold ${isFigure(of) ? 'text-right tabular-nums' : ''}`}
                >
                  {sumOf(place) === undefined ? (
                    place === 0 ? (
                      say('views:all')
                    ) : null
                  ) : (
                    <span title={say('views:sumOf', { what: told(calledIn(of, fields)) })}>
                      {told(sumOf(place) ?? '')}
                    </span>
                  )}
                </td>
              ))}
            </tr>
          </tfoot>
        ) : null}
      </table>
      {rows.length === 0 && !isLoading && first.findings.length === 0 ? (
        <p className="px-2 py-6 text-soft">{say('views:empty')}</p>
      ) : null}
      {rows.length > 0 ? (
        <p className="flex flex-wrap items-center gap-4 px-2 py-3 text-soft">
          {countOf(rows.length, first)}
          {first.isAll ? null : <span>{say('views:notAll', { count: VIEW_LOOKS_AT })}</span>}
          {first.more && view.groups.length > 0 ? <span>{say('views:noGroups')}</span> : null}
          {!first.more && first.moreGroups ? (
            <span>{say('views:fewGroups', { count: first.groups.length })}</span>
          ) : null}
        </p>
      ) : null}
      {editing ? (
        <CellEditor
          key={cellKey(editing.number, editing.subject)}
          {...editing}
          fields={fields}
          typed={begun[cellKey(editing.number, editing.subject)]}
          setTyped={(typed) => type(cellKey(editing.number, editing.subject), () => typed)}
          close={() => {
            setEditing(null);
            if (cursor) focus(cursor);
          }}
        />
      ) : null}
    </div>
  );
}

/** The cell of a request in a column, where it is on the page. */
const cellAt = (body: HTMLElement | null, number: string, column: number): HTMLElement | undefined =>
  body?.querySelector<HTMLTableRowElement>(`tr[data-number="${CSS.escape(number)}"]`)?.cells[column];

/** Stands for lines that are not on the page. */
const Gap = ({ high, columns }: { high: number; columns: number }) => (
  <tr>
    <td colSpan={columns} className="p-0" style={{ height: high }} />
  </tr>
);

/** How far a key makes a column wider, px. */
const KEY_STEP = 16;

/** What a column is called, where it comes from, and the edge by which it is made wider. */
function Head({
  of,
  fields,
  place,
  isFigure,
  width,
  resize,
}: {
  of: string;
  fields: readonly Field[];
  place: number;
  isFigure: boolean;
  width: number;
  resize: (width: number) => void;
}) {
  const cell = useRef<HTMLTableCellElement>(null);
  const origin = originOf(of, fields);
  const called = told(calledIn(of, fields));
  const drag = (event: React.PointerEvent<HTMLElement>): void => {
    event.preventDefault();
    const [from, wide] = [event.clientX, cell.current?.offsetWidth ?? width];
    const edge = event.currentTarget;
    edge.setPointerCapture(event.pointerId);
    const end = ({ clientX }: PointerEvent): void => {
      edge.removeEventListener('pointerup', end);
      resize(wide + clientX - from);
    };
    edge.addEventListener('pointerup', end);
  };
  return (
    <th
      ref={cell}
      scope="col"
      className={`sticky top-0 border-b border-rule-strong bg-paper px-2 py-1.5 text-[12px] font-semibold text-soft ${place === 0 ? 'left-0 z-20' : 'z-10'} ${isFigure ? 'text-right' : 'text-left'}`}
    >
      <span className="block truncate">
        {called}
        {origin === 'fact' || origin === 'asked' ? null : (
          <i className="subject ml-1.5 text-[12px] font-normal text-brass italic">{say(`views:origin.${origin}`)}</i>
        )}
      </span>
      {/* biome-ignore lint/a11y/useSemanticElements: a line that is moved (ARIA window splitter), and not one that parts texts */}
      <span
        role="separator"
        aria-orientation="vertical"
        aria-label={say('views:widthOf', { what: called })}
        aria-valuenow={width}
        aria-valuemin={WIDTHS.least}
        aria-valuemax={WIDTHS.most}
        tabIndex={0}
        className="absolute top-0 right-0 h-full w-[7px] cursor-col-resize touch-none border-r border-transparent hover:border-rule-strong focus-visible:border-green"
        onPointerDown={drag}
        onKeyDown={(event) => {
          const by = event.key === 'ArrowRight' ? KEY_STEP : event.key === 'ArrowLeft' ? -KEY_STEP : 0;
          if (by === 0) return;
          event.preventDefault();
          event.stopPropagation();
          resize(width + by);
        }}
      />
    </th>
  );
}

function countOf(shown: number, { total, more }: Looked): string {
  if (more) return say('views:moreThan', { count: total });
  return shown < total ? say('views:rowsOf', { shown, count: total }) : say('views:rows', { count: total });
}

interface LineProps {
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  /** Its place among all lines. */
  readonly at: number;
  readonly measure: (element: HTMLElement | null) => void;
}

function GroupHead({ group, view, fields, at, measure }: LineProps & { readonly group: Looked['groups'][number] }) {
  const sums = group.sums.filter(({ sum }) => sum !== '');
  return (
    <tr ref={measure} data-index={at}>
      <th
        scope="rowgroup"
        colSpan={view.columns.length}
        className="border-b border-rule-strong px-2 pt-4 pb-1 text-left font-normal"
      >
        <span className="subject text-[16px]">
          {group.path.map((each) => told(each) || say('views:noValue')).join(' · ')}
        </span>
        <small className="ml-2 text-[13px] text-soft">
          {[
            say('views:groupRows', { count: group.count }),
            ...sums.map(({ column, sum }) => {
              const subject = view.columns[column]?.of ?? '';
              return `${told(calledIn(subject, fields))} ${told(sum)}`;
            }),
          ].join(' · ')}
        </small>
      </th>
    </tr>
  );
}

interface RowProps extends LineProps {
  readonly row: Row;
  /** Its place among the rows. */
  readonly place: number;
  readonly here: boolean;
  readonly to: string;
  /** The column of the cell that takes the keyboard; null where it is in another row. */
  readonly column: number | null;
  readonly begun: Readonly<Record<string, RawAnswer>>;
  readonly enter: (column: number) => void;
  readonly change: (cell: HTMLElement, subject: string) => void;
}

function ViewRow({ row, view, fields, at, place, here, to, column, begun, measure, enter, change }: RowProps) {
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
        return (
          <td
            key={of}
            tabIndex={column === nth ? 0 : -1}
            title={isBegun ? say('views:notSaved') : undefined}
            style={nth === 0 && mark && !here ? { background: 'inherit' } : undefined}
            className={`h-8 truncate border-b px-2 py-1 align-middle outline-offset-[-2px] focus:outline-2 focus:outline-green ${here ? 'border-green bg-sheet' : nth === 0 ? 'border-rule bg-paper' : 'border-rule'} ${nth === 0 ? 'sticky left-0 z-[5]' : ''} ${isFigure ? 'text-right tabular-nums' : ''} ${nth === 0 && here ? 'shadow-[inset_3px_0_var(--green)]' : isBegun ? 'shadow-[inset_0_-2px_var(--brass)]' : ''}`}
            onFocus={() => enter(nth)}
            onDoubleClick={({ currentTarget }) => {
              if (nth > 0 && (!isFact(of) || CHANGED.has(of))) change(currentTarget, of);
            }}
          >
            {nth === 0 ? (
              <Link to={to} tabIndex={-1} className="text-ink no-underline group-hover:underline">
                {mark ? (
                  <span className="mr-2 text-[12.5px] font-semibold">
                    <ColourMark colour={mark.colour} />
                    {mark.word}
                  </span>
                ) : null}
                {content || row.number}
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
