import { said, type Words } from '@tolvek/words';
import {
  type Compiled,
  type Computed,
  compile,
  computingOrder,
  type Node,
  parseExpression,
  Scope,
  type ScopeType,
  type Value,
} from '../../expression/index.ts';
import { isSame, own } from '../../own/index.ts';
import type {
  FieldValue,
  ItemColumn,
  ItemRow,
  Kind,
  KindName,
  RawAnswer,
  RawRow,
  Single,
  SingleKind,
} from '../field.ts';
import { isRowId, ROW_ID, rowIdOf } from '../rowIds.ts';
import {
  type Around,
  EMPTY,
  isBlank,
  type KindWork,
  type ReadAnswer,
  STORED_APART,
  type WrongCell,
  wrong,
} from './kind.ts';

type LineItems = Extract<Kind, { kind: 'line-items' }>;
type WorkOf = (type: SingleKind) => KindWork<KindName>;

/** Lines as they stood, and what somebody may do with those of their columns that they may read. */
export interface StoodLines {
  readonly rows: readonly ItemRow[];
  readonly columns: readonly { readonly key: string; readonly writable: boolean }[];
}

/**
 * Whether somebody may add lines and take them away, who may do this with their columns: a new line needs what has to be
 * filled in, and with one that goes all that stands in it is gone.
 */
export function linesComeAndGo(
  type: LineItems,
  columns: StoodLines['columns'],
): { readonly mayAdd: boolean; readonly mayRemove: boolean } {
  const locked = type.columns.filter(
    (column) => isAsked(column) && !columns.some(({ key, writable }) => writable && key === column.key),
  );
  return { mayAdd: !locked.some(({ required }) => required), mayRemove: locked.length === 0 };
}

const isLine = (line: RawRow | undefined): line is RawRow =>
  typeof line === 'object' && line !== null && !Array.isArray(line);

const idOf = (row: ItemRow, rows: readonly ItemRow[]): ItemRow => ({ [ROW_ID]: rowIdOf(row, rows.indexOf(row)) });

/** Rows there may be unless the field says otherwise. */
export const MOST_ROWS = 200;

const rowsOf = (value: FieldValue): readonly ItemRow[] => value as readonly ItemRow[];
const isAsked = (column: ItemColumn): boolean => column.formula === undefined;

/** The names a formula of a column may use: the columns of its row. */
export const rowScope = (type: LineItems, workOf: WorkOf): Scope =>
  new Scope(
    type.columns.map((column) => ({
      name: column.key,
      label: column.label,
      type: workOf(column.type).scopeType(column.type),
    })),
  );

interface Formula {
  readonly slot: number;
  readonly column: ItemColumn;
  readonly run: Compiled;
}

/**
 * What the lines come to while they are typed: computed cells and the sums of columns, in words.
 */
export interface ItemsShown {
  /** By row, then by column; only computed columns, and others that were asked for. */
  readonly cells: readonly Readonly<Record<string, Words>>[];
  /** Sums of computed money and number columns. */
  readonly sums: Readonly<Record<string, Words>>;
}

/**
 * Line items: a small row of fields that repeats. The kinds of its columns read, show and compare
 * their cells.
 */
export function lineItemsOf(workOf: WorkOf): KindWork<'line-items'> & {
  readonly shownWhile: (raw: RawAnswer, type: LineItems, around: Around, also?: readonly string[]) => ItemsShown;
  readonly readChanged: (raw: RawAnswer, type: LineItems, around: Around, stood: StoodLines) => ReadAnswer;
} {
  const ready = new WeakMap<LineItems, readonly Formula[]>();
  const asked = new WeakMap<LineItems, ReadonlyMap<string, ItemColumn>>();

  /** The columns that are asked, by key. */
  function askedOf(type: LineItems): ReadonlyMap<string, ItemColumn> {
    let columns = asked.get(type);
    if (!columns)
      asked.set(type, (columns = new Map(type.columns.filter(isAsked).map((column) => [column.key, column]))));
    return columns;
  }

  /** Formulas in the order to compute them; one in a circle, or that can’t be read, stays empty. */
  function formulasOf(type: LineItems): readonly Formula[] {
    let formulas = ready.get(type);
    if (!formulas) {
      const scope = rowScope(type, workOf);
      const parsed = type.columns.flatMap((column, slot) => {
        const result = column.formula === undefined ? null : parseExpression(column.formula);
        return result?.ok ? [{ column, slot, node: result.value }] : [];
      });
      const order = computingOrder(parsed.map(({ column, node }): Computed => ({ name: column.key, node })));
      const keys = order.ok ? order.order : [];
      formulas = keys
        .flatMap((key) => parsed.filter((each) => each.column.key === key))
        .map(({ column, slot, node }: { column: ItemColumn; slot: number; node: Node }) => ({
          slot,
          column,
          run: compile(node, scope),
        }));
      ready.set(type, formulas);
    }
    return formulas;
  }

  function completed(row: Record<string, Single>, type: LineItems): ItemRow {
    const formulas = formulasOf(type);
    if (formulas.length === 0) return row;
    const slots: Value[] = type.columns.map((column) => valueAt(row, column));
    for (const { column, slot, run } of formulas) {
      const value = workOf(column.type).fromExpression(run(slots, null), column.type);
      if (value === undefined) continue;
      row[column.key] = value as Single;
      slots[slot] = valueAt(row, column);
    }
    return row;
  }

  function valueAt(row: ItemRow, column: ItemColumn): Value {
    const value = Object.hasOwn(row, column.key) ? row[column.key] : undefined;
    return value === undefined ? null : workOf(column.type).toExpression(value, column.type);
  }

  /**
   * Reads what can be read of each line, so that a line half filled in has what can be computed
   * already. `also`: columns that are told of as they were typed.
   */
  function shownWhile(raw: RawAnswer, type: LineItems, around: Around, also: readonly string[] = []): ItemsShown {
    const lines = Array.isArray(raw) ? (raw as readonly RawRow[]) : [];
    const spoken = (kind: LineItems['columns'][number]['type'], value: FieldValue): Words => {
      const work = workOf(kind);
      return (work.say ?? work.show)(value, kind, () => undefined);
    };
    const computed = type.columns.filter((column) => !isAsked(column));
    const rows = lines.map((line, index) => readRow(line, index, type, around, []));
    const scope = new Scope([{ name: 'cells', label: 'cells', type: null }]);
    const total = parseExpression('sum(cells)');
    const sums = computed.flatMap((column) => {
      if ((column.type.kind !== 'money' && column.type.kind !== 'number') || !total.ok) return [];
      const sum = compile(total.value, scope)(
        [rows.map((row) => valueAt(row, column)).filter((value) => value !== null)],
        null,
      );
      const value = workOf(column.type).fromExpression(sum, column.type);
      return value === undefined ? [] : [[column.key, spoken(column.type, value)]];
    });
    const told = [...computed, ...type.columns.filter((column) => isAsked(column) && also.includes(column.key))];
    const cellsOf = (row: ItemRow): Record<string, Words> =>
      Object.fromEntries(
        told.flatMap((column) =>
          own(row, column.key) === undefined ? [] : [[column.key, spoken(column.type, row[column.key] as Single)]],
        ),
      );
    return { cells: rows.map(cellsOf), sums: Object.fromEntries(sums) };
  }

  /**
   * Reads lines as somebody changed them who may change only some of their columns: every other cell stays as it stood.
   * Lines are known by their ids, or by what stands in them. One that is left out is refused, as its other cells would go
   * with it, and so is a new one where it needs a column that is not theirs to fill in.
   */
  function readChanged(
    raw: RawAnswer,
    type: LineItems,
    around: Around,
    { rows: stood, columns }: StoodLines,
  ): ReadAnswer {
    const typed = (isBlank(raw) ? [] : raw) as readonly RawRow[];
    const writable = new Set(columns.flatMap(({ key, writable: may }) => (may ? [key] : [])));
    const shown = new Set(columns.map(({ key }) => key));
    const { mayAdd, mayRemove } = linesComeAndGo(type, columns);
    const all = type.columns.filter(isAsked);
    const theirs: LineItems = { ...type, columns: all.filter(({ key }) => writable.has(key)) };
    const left = new Map(stood.map((row, place) => [rowIdOf(row, place), row]));
    const found = typed.map((line) => (isLine(line) ? claimed(line, left, all, shown) : undefined));
    const rows: ItemRow[] = [];
    const cells: WrongCell[] = [];
    for (const [index, line] of typed.entries()) {
      if (!isLine(line)) return wrong(said('answers:lineNeedsColumns'), said('answers:lineAsColumns'));
      const was = found[index];
      const at = { line: index + 1 };
      for (const [key, cell] of Object.entries(line)) {
        if (key === ROW_ID || writable.has(key)) continue;
        const column = all.find((each) => each.key === key && shown.has(key));
        if (!column) return wrong(said('answers:lineStranger', { ...at, column: key }), said('answers:removeIt'));
        if (!isAsItStood(cell, was?.[key], column))
          return wrong(
            said('answers:lineSays', { ...at, message: said('answers:readOnly', { label: column.label }) }),
            said('answers:leaveAsItStood'),
          );
      }
      if (!was && Object.entries(line).every(([key, cell]) => key === ROW_ID || isBlank(cell))) continue;
      if (!was && !mayAdd) return wrong(said('answers:linesNotAdded'), said('answers:removeNewLine'));
      const kept = all.flatMap(({ key }) => (was?.[key] === undefined || writable.has(key) ? [] : [[key, was[key]]]));
      const read = readRow(line, index, theirs, around, cells);
      rows.push(completed({ ...Object.fromEntries(kept), ...read, ...(was ? idOf(was, stood) : {}) }, type));
    }
    if (cells.length === 0 && left.size > 0 && !mayRemove)
      return wrong(said('answers:linesNotRemoved'), said('answers:keepAllLines'));
    return counted(rows, cells, type, isBlank(raw));
  }

  /** Lines as they were read, unless a cell of them is wrong, or they are too few or too many. */
  function counted(
    rows: readonly ItemRow[],
    cells: readonly WrongCell[],
    { least = 0, most = MOST_ROWS }: LineItems,
    isEmpty: boolean,
  ): ReadAnswer {
    const [first] = cells;
    if (first)
      return {
        ...{ state: 'wrong', fix: first.fix, cells },
        message: said('answers:lineSays', { line: first.place.row + 1, message: first.message }),
      };
    if (rows.length === 0 && (least === 0 || isEmpty)) return EMPTY;
    if (rows.length < least)
      return wrong(said('answers:tooFewLines', { count: least, lines: rows.length }), said('answers:addLine'));
    if (rows.length > most)
      return wrong(
        said('answers:tooManyLines', { most, lines: rows.length }),
        said('answers:removeLines', { n: rows.length - most }),
      );
    return { state: 'value', value: rows };
  }

  /** The line that stood and that a typed one is, by its id, or else by what stands in it; it is no other’s then. */
  function claimed(
    line: RawRow,
    left: Map<string, ItemRow>,
    asked: readonly ItemColumn[],
    shown: ReadonlySet<string>,
  ): ItemRow | undefined {
    const id = line[ROW_ID];
    const isIt = (row: ItemRow): boolean =>
      asked.every(({ key, ...column }) => !shown.has(key) || isAsItStood(own(line, key) ?? null, row[key], column));
    const found = id === undefined ? [...left].find(([, row]) => isIt(row)) : [...left].find(([known]) => known === id);
    if (found) left.delete(found[0]);
    return found?.[1];
  }

  function isAsItStood(cell: RawRow[string], stood: Single | undefined, { type }: Pick<ItemColumn, 'type'>): boolean {
    if (stood === undefined) return isBlank(cell);
    return isSame(cell, workOf(type).typed(stood, type));
  }

  return {
    shownWhile,
    readChanged,
    listed: true,
    read: (raw, type, around) => {
      const typed = (isBlank(raw) ? [] : raw) as readonly RawRow[];
      const { most = MOST_ROWS } = type;
      if (typed.length > most + 50)
        return wrong(
          said('answers:tooManyLines', { most, lines: typed.length }),
          said('answers:removeLines', { n: typed.length - most }),
        );
      const rows: ItemRow[] = [];
      const cells: WrongCell[] = [];
      for (const [index, line] of typed.entries()) {
        if (typeof line !== 'object' || line === null || Array.isArray(line))
          return wrong(said('answers:lineNeedsColumns'), said('answers:lineAsColumns'));
        const stranger = Object.keys(line).find((key) => key !== ROW_ID && !askedOf(type).has(key));
        if (stranger !== undefined)
          return wrong(said('answers:lineStranger', { line: index + 1, column: stranger }), said('answers:removeIt'));
        if (Object.entries(line).every(([key, cell]) => key === ROW_ID || isBlank(cell))) continue;
        rows.push(readRow(line, index, type, around, cells));
      }
      return counted(rows, cells, type, isBlank(raw));
    },
    show: (value, type, nameOf) =>
      rowsOf(value)
        .map((row) =>
          type.columns
            .flatMap((column) =>
              own(row, column.key) === undefined
                ? []
                : [workOf(column.type).show(row[column.key] as Single, column.type, nameOf)],
            )
            .join(', '),
        )
        .join('\n'),
    say: (value, type, nameOf) =>
      said('values:lines', {
        lines: rowsOf(value).map((row) =>
          said('values:list', {
            items: type.columns.flatMap((column) => {
              const cell = own(row, column.key);
              const work = workOf(column.type);
              return cell === undefined ? [] : [(work.say ?? work.show)(cell as Single, column.type, nameOf)];
            }),
          }),
        ),
      }),
    typed: (value, type): RawAnswer =>
      rowsOf(value).map((row) =>
        Object.fromEntries([
          ...(own(row, ROW_ID) === undefined ? [] : [[ROW_ID, row[ROW_ID]]]),
          ...type.columns
            .filter(isAsked)
            .flatMap((column) =>
              own(row, column.key) === undefined
                ? []
                : [[column.key, workOf(column.type).typed(row[column.key] as Single, column.type) as RawRow[string]]],
            ),
        ]),
      ),
    toExpression: (value, type) =>
      rowsOf(value).map((row) => Object.fromEntries(type.columns.map((column) => [column.key, valueAt(row, column)]))),
    fromExpression: () => undefined,
    scopeType: (type): ScopeType => ({
      kind: 'list',
      of: {
        kind: 'context',
        entries: Object.fromEntries(
          type.columns.map((column) => [
            column.key,
            { label: column.label, type: workOf(column.type).scopeType(column.type) },
          ]),
        ),
      },
    }),
    stored: () => STORED_APART,
  };

  function readRow(line: RawRow, index: number, type: LineItems, around: Around, cells: WrongCell[]): ItemRow {
    const row: Record<string, Single> = isRowId(own(line, ROW_ID)) ? { [ROW_ID]: line[ROW_ID] as string } : {};
    for (const column of askedOf(type).values()) {
      const place = { row: index, column: column.key };
      const read = workOf(column.type).read(
        Object.hasOwn(line, column.key) ? (line[column.key] ?? null) : null,
        column.type,
        around,
      );
      if (read.state === 'value') row[column.key] = read.value as Single;
      else if (read.state === 'wrong') cells.push({ message: read.message, fix: read.fix, place });
      else if (column.required)
        cells.push({
          message: said('answers:unanswered', { label: column.label }),
          fix: said('answers:fillInOrRemoveLine'),
          place,
          why: 'unanswered',
        });
    }
    return completed(row, type);
  }
}
