import { isSame } from '../design/index.ts';
import type { Field, ItemRow, RawRow, Values } from './field.ts';

/** Where the id of a line stands in it: no column can be called so. */
export const ROW_ID = '#';

const PATTERN = /^\d{1,9}-\d{1,4}$/;

/** The id a line has by where it stands, unless it says another: what arrived as line 3 is `1-2`. */
const byPlace = (place: number): string => `1-${place}`;

/** The id of a line of a stored value: it never changes, whatever lines come, go or change places. */
export const rowIdOf = (row: ItemRow | RawRow, place: number): string => {
  const said = Object.hasOwn(row, ROW_ID) ? row[ROW_ID] : undefined;
  return typeof said === 'string' ? said : byPlace(place);
};

/** Whether a line says an id at all as ids are said. */
export const isRowId = (value: unknown): value is string => typeof value === 'string' && PATTERN.test(value);

/** Lines as they are typed, each with its id, to be worked on. */
export const withRowIds = (rows: readonly RawRow[]): readonly RawRow[] =>
  rows.map((row, place) => ({ ...row, [ROW_ID]: rowIdOf(row, place) }));

function without(row: ItemRow): ItemRow {
  const { [ROW_ID]: _, ...cells } = row;
  return cells;
}

/**
 * The lines of a value that was changed, with their ids: those that are named keep theirs, those that
 * say the same as one that is not named are that one, and others are new. An id that stands for a line
 * by its place is not said. `version`: of the request when it was changed; no id is ever given again.
 */
export function identifiedRows(
  before: readonly ItemRow[],
  after: readonly ItemRow[],
  version: number,
): readonly ItemRow[] {
  const was = new Map(before.map((row, place) => [rowIdOf(row, place), without(row)]));
  const ids = after.map((row) => {
    const said = row[ROW_ID];
    if (typeof said !== 'string' || !was.has(said)) return null;
    was.delete(said);
    return said;
  });
  const left = new Map(was);
  return after.map((row, place) => {
    const cells = without(row);
    let id = ids[place] ?? null;
    if (id === null && row[ROW_ID] === undefined) {
      id = [...left].find(([, there]) => isSame(there, cells))?.[0] ?? null;
      if (id !== null) left.delete(id);
    }
    id ??= `${version + 1}-${place}`;
    return id === byPlace(place) ? cells : { [ROW_ID]: id, ...cells };
  });
}

/** Values of which no line says an id: as they arrive, each line is called by its place. */
export function withoutRowIds(fields: readonly Field[], values: Values): Values {
  const lines = fields.filter(({ key, type }) => type.kind === 'line-items' && Array.isArray(values[key]));
  if (lines.length === 0) return values;
  const found = lines.map(({ key }) => [key, (values[key] as readonly ItemRow[]).map(without)] as const);
  return { ...values, ...Object.fromEntries(found) };
}
