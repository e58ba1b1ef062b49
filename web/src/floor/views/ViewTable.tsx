import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import type { AnswerOf } from '@tolvek/contract';
import type { Field, RawAnswer } from '@tolvek/core/register';
import { isFact, kindIn, type ViewDesign } from '@tolvek/core/view';
import { Fragment, type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { say } from '../../wire/words.ts';
import type { ChosenRow } from '../Ledger.tsx';
import { useRowKeys } from '../useRowKeys.ts';
import { type Block, blockBetween, blockIn, clipboardOf, type Meant, meantBy, plainCell } from './block.ts';
import { CellEditor } from './CellEditor.tsx';
import { ColumnHead } from './ColumnHead.tsx';
import { wordsIn } from './cells.tsx';
import { CHANGED, type Cursor, cellKey, cursorIn, FIGURES, linesOf, resized, stepFrom, widthOf } from './grid.ts';
import { MOST, Pasting } from './Pasting.tsx';
import { Gap, GroupHead, ViewRow } from './ViewRow.tsx';
import { HowMany, Sums } from './ViewSums.tsx';

type Looked = AnswerOf<'lookThrough'>;

interface ViewTableProps {
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  readonly pages: readonly Looked[];
  /** Numbers of those that are not in the view any more, and still seen. */
  readonly away: ReadonlySet<string>;
  readonly open: string | undefined;
  readonly to: (number: string) => string;
  readonly more: (() => void) | null;
  readonly isLoading: boolean;
  readonly isAddingUp: boolean;
  /** Those that are chosen, with their versions; null where none can be. */
  readonly chosen: ReadonlyMap<string, number> | null;
  readonly choose: (rows: readonly ChosenRow[], isIn: boolean) => void;
  /** Changes the view; nothing is saved by it. */
  readonly set: (view: ViewDesign) => void;
}

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
/** Lines that are there above and below what is seen. */
const BEYOND = 12;
/** Lines before the last at which more are fetched. */
const AHEAD = 30;
/** How high a line is before it is measured, px. */
const HIGH = 30;

/**
 * The rows of a view, in its groups: only those that are seen are on the page. Arrow keys go through the cells, Enter changes
 * one or opens the request, J and K open the next and the previous one.
 */
export function ViewTable({
  away,
  view,
  fields,
  pages,
  open,
  to,
  more,
  isLoading,
  isAddingUp,
  chosen,
  choose,
  set,
}: ViewTableProps) {
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
    /** Enter came before the field had the keyboard: what was typed is saved as soon as it is there. */
    readonly saves?: true;
  } | null>(null);
  // What is typed stays, whatever becomes of the cell meanwhile.
  const [begun, setBegun] = useState<Readonly<Record<string, RawAnswer>>>({});
  // Shift and the arrows reach from one cell to another: what is in between is copied and filled.
  const [from, setFrom] = useState<Pick<Cursor, 'row' | 'column'> | null>(null);
  const block = cursor && blockBetween(from ?? cursor, cursor);
  const [meant, setMeant] = useState<Meant | null>(null);
  const [wrong, setWrong] = useState<Readonly<Record<string, string>>>({});
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
    else if (typed === undefined && begun[cellKey(number, subject)] !== undefined)
      setEditing({ cell, number, subject, saves: true });
  };
  /** What stands in a cell, as it is copied. */
  const plainAt = (row: number, column: number): string => {
    const [of, found] = [view.columns[column]?.of ?? '', rows[row]];
    if (!found) return '';
    return isFact(of)
      ? (cellAt(body.current, found.number, column)?.textContent ?? '')
      : plainCell(wordsIn(found, of, view));
  };
  const cellsIn = ({ row, column, rows: high, columns: wide }: Block): readonly (readonly string[])[] =>
    Array.from({ length: high }, (_, down) =>
      Array.from({ length: wide }, (__, across) => plainAt(row + down, column + across)),
    );
  const put = (cells: readonly (readonly string[])[], into: Block): void =>
    setMeant(meantBy(cells, into, { rows, columns: view.columns }, MOST));
  const takesText = (subject: string): boolean => !isFact(subject) && TYPED.has(kindIn(subject, fields) ?? '');
  const onKey = (event: KeyboardEvent<HTMLElement>): void => {
    const cell = (event.target as HTMLElement).closest('td');
    if (!cursor || !cell || event.altKey) return;
    const subject = view.columns[cursor.column]?.of ?? '';
    const isCommand = event.ctrlKey || event.metaKey;
    const step = stepFrom(cursor, event.key, { rows: rows.length, columns: view.columns.length }, isCommand);
    const key = event.key.toLowerCase();
    const isLetter = event.key.length === 1 && !isCommand && takesText(subject) && event.key !== ' ';
    if (step) {
      setFrom(event.shiftKey ? (from ?? cursor) : null);
      focus(step);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      if (cursor.column === 0 && event.key === 'Enter') navigate(to(cursor.number));
      else if (!isFact(subject) || CHANGED.has(subject)) change(cell, cursor.number, subject);
    } else if (isLetter && cursor.column > 0) change(cell, cursor.number, subject, event.key);
    else if (isCommand && key === 'd' && block && block.rows > 1) put(cellsIn({ ...block, rows: 1 }), block);
    else return;
    event.preventDefault();
    // J, K and the arrows do something else where no cell has the keyboard.
    event.stopPropagation();
  };
  const onCopy = (event: React.ClipboardEvent<HTMLElement>): void => {
    // What is marked on the page is copied as anywhere.
    if (!block || getSelection()?.isCollapsed === false) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', clipboardOf(cellsIn(block)));
  };
  const onPaste = (event: React.ClipboardEvent<HTMLElement>): void => {
    const cell = (event.target as HTMLElement).closest('td');
    const text = event.clipboardData.getData('text/plain');
    if (!cursor || !block || !cell || text.trim() === '') return;
    event.preventDefault();
    const cells = blockIn(text);
    const subject = view.columns[cursor.column]?.of ?? '';
    const isOne = cells.length === 1 && cells[0]?.length === 1 && block.rows * block.columns === 1;
    // One value is seen in its cell before it is saved; of several it is told what would become of them.
    if (isOne && cursor.column > 0 && takesText(subject)) change(cell, cursor.number, subject, text.trim());
    else put(cells, block);
  };
  if (!first) return null;
  const isFigure = (subject: string): boolean => FIGURES.has(kindIn(subject, fields) ?? '');
  const widths = view.columns.map((column) => widthOf(column, fields));
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
        onCopy={onCopy}
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
              <ColumnHead
                key={of}
                {...{ of, fields, place, isFigure: isFigure(of), width: widths[place] ?? 0 }}
                resize={(width) => set(resized(view, of, width))}
                {...(place === 0 && chosen
                  ? {
                      all: {
                        isIn: rows.length > 0 && rows.every((row) => chosen.has(row.number)),
                        choose: (isIn: boolean) => choose(rows, isIn),
                      },
                    }
                  : {})}
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
                    isAway={away.has(line.row.number)}
                    here={line.row.number === open}
                    to={to(line.row.number)}
                    {...{
                      view,
                      fields,
                      place: line.at,
                      at: item.index,
                      measure: seen.measureElement,
                      begun,
                      wrong,
                      block,
                    }}
                    column={cursor?.row === line.at ? cursor.column : cursor === null && line.at === 0 ? 0 : null}
                    enter={(column) => {
                      setAt({ row: line.at, number: line.row.number, column });
                    }}
                    isChosen={chosen ? chosen.has(line.row.number) : null}
                    choose={(isIn) => choose([line.row], isIn)}
                    press={() => setFrom(null)}
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
        {first.sums.length > 0 && rows.length > 0 ? <Sums {...{ view, fields, first }} /> : null}
      </table>
      <HowMany {...{ view, first, isLoading, isAddingUp }} shown={rows.length} />
      {meant ? (
        <Pasting
          meant={meant}
          fields={fields}
          close={(refused) => {
            setMeant(null);
            setFrom(null);
            setWrong(
              Object.fromEntries(refused.map(({ number, subject, why }) => [cellKey(number, subject ?? ''), why])),
            );
            if (cursor) focus(cursor);
          }}
        />
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
