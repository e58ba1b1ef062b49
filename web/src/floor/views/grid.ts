import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { kindIn, type ViewDesign } from '@tolvek/core/view';

type Looked = AnswerOf<'lookThrough'>;
type Row = Looked['rows'][number];
type Group = Looked['groups'][number];

/** What stands below each other in a table: the heads of groups, and rows by their places. */
export type Line =
  | { readonly is: 'group'; readonly group: Group }
  | { readonly is: 'row'; readonly row: Row; readonly at: number };

/** Rows in their order, each group with its head before the first of them. */
export function linesOf(rows: readonly Row[], groups: readonly Group[]): readonly Line[] {
  const byId = new Map(groups.map((group) => [group.id, group]));
  return rows.flatMap((row, at): Line[] => {
    const group = rows[at - 1]?.group === row.group ? undefined : byId.get(row.group);
    return [...(group ? [{ is: 'group' as const, group }] : []), { is: 'row', row, at }];
  });
}

/** Where one is in a table: in which row, by its place and its number, and in which column. */
export interface Cursor {
  readonly row: number;
  readonly number: string;
  readonly column: number;
}

/** Where one is once other rows have come: in the same request, where it is still there, else in the same place. */
export function cursorIn(cursor: Cursor | null, rows: readonly { readonly number: string }[]): Cursor | null {
  if (!cursor || rows.length === 0) return null;
  const there = rows.findIndex(({ number }) => number === cursor.number);
  const row = there === -1 ? Math.min(cursor.row, rows.length - 1) : there;
  return { ...cursor, row, number: rows[row]?.number ?? '' };
}

/** Rows that a page key goes over. */
const PAGE = 15;

const STEPS: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ...{ ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] },
  ...{ PageDown: [PAGE, 0], PageUp: [-PAGE, 0], Home: [0, -Infinity], End: [0, Infinity] },
};

const within = (place: number, size: number): number => Math.max(0, Math.min(size - 1, place));

/** Where a key leads from a place (ARIA Authoring Practices, grid); null where it leads nowhere. `far`: with Ctrl, to the first or last row. */
export function stepFrom(
  cursor: Pick<Cursor, 'row' | 'column'>,
  key: string,
  size: { readonly rows: number; readonly columns: number },
  far = false,
): Pick<Cursor, 'row' | 'column'> | null {
  const step = Object.hasOwn(STEPS, key) ? STEPS[key] : undefined;
  if (!step) return null;
  const [rows, columns] = step;
  const isEnd = key === 'Home' || key === 'End';
  const row = far && isEnd ? (key === 'Home' ? 0 : size.rows - 1) : within(cursor.row + rows, size.rows);
  return { row, column: within(cursor.column + columns, size.columns) };
}

/** How wide columns are that nobody has sized, px: by what stands in them. */
const WIDE: Readonly<Record<string, number>> = {
  ...{ 'long-text': 280, text: 200, files: 160, 'line-items': 240, date: 160, 'date-time': 215, 'yes-no': 80 },
  ...{ number: 100, money: 120, duration: 100, choice: 150, level: 120, person: 170, 'running-number': 120 },
};
const WIDE_FACTS: Readonly<Record<string, number>> = {
  ...{ 'request.number': 110, 'request.subject': 300, 'request.due': 210, 'request.stage': 180 },
};
const USUAL = 170;

/** How narrow and how wide a column may be made, px. */
export const WIDTHS = { least: 60, most: 900 } as const;

/** How wide a column is, px. */
export const widthOf = (
  { of, width }: ViewDesign['columns'][number],
  fields: readonly Pick<Field, 'key' | 'type'>[],
): number => width ?? WIDE_FACTS[of] ?? WIDE[kindIn(of, fields) ?? ''] ?? USUAL;

/** A view with a column as wide as that, within what is sensible. */
export const resized = (view: ViewDesign, subject: string, width: number): ViewDesign => ({
  ...view,
  columns: view.columns.map((column) =>
    column.of === subject
      ? { ...column, width: Math.round(Math.max(WIDTHS.least, Math.min(WIDTHS.most, width))) }
      : column,
  ),
});

/** Kinds that stand at the right of their columns, so that figures can be compared. */
export const FIGURES: ReadonlySet<string> = new Set(['number', 'money', 'duration']);
/** Facts that are changed in their cells. */
export const CHANGED: ReadonlySet<string> = new Set([
  'request.stage',
  'request.handler',
  'request.team',
  'request.priority',
]);

/** What is changed in a cell just now, or was begun there. */
export const cellKey = (number: string, subject: string): string => `${number} ${subject}`;
