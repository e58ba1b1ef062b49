import type { Field, ItemColumn, ItemRow } from './field.ts';
import { ROW_ID } from './rowIds.ts';

/** Between the key of a field of lines and that of a column: no key has one in it. */
const BETWEEN = '.';

/** What a column of a field of lines is called: `items.price`. */
export const columnKey = (field: string, column: string): string => `${field}${BETWEEN}${column}`;

/** The key of the field that a key is of: itself, or where it is a column, the field whose lines have it. */
export function fieldKeyOf(key: string): string {
  const end = key.indexOf(BETWEEN);
  return end < 0 ? key : key.slice(0, end);
}

const columns = new WeakMap<Field, readonly Field[]>();
const NO_COLUMNS: readonly Field[] = [];

/** The columns of a field of lines as fields of their own; none for others. */
export function columnsOf(field: Field): readonly Field[] {
  const { type } = field;
  if (type.kind !== 'line-items') return NO_COLUMNS;
  let found = columns.get(field);
  if (!found)
    columns.set(
      field,
      (found = type.columns.map(
        (column) =>
          ({
            ...field,
            ...{ key: columnKey(field.key, column.key), label: `${field.label} · ${column.label}`, type: column.type },
          }) as Field,
      )),
    );
  return found;
}

const parts = new WeakMap<readonly Field[], readonly Field[]>();

/** Fields, each followed by its columns; the same list for the same fields. */
export function partsOf(fields: readonly Field[]): readonly Field[] {
  let found = parts.get(fields);
  if (!found) {
    const hasLines = fields.some(({ type }) => type.kind === 'line-items');
    parts.set(fields, (found = hasLines ? fields.flatMap((field) => [field, ...columnsOf(field)]) : fields));
  }
  return found;
}

/** The column of a field of lines that a key stands for. */
export function columnNamed({ key, type }: Field, part: string): ItemColumn | undefined {
  if (type.kind !== 'line-items') return undefined;
  return type.columns.find((column) => columnKey(key, column.key) === part);
}

/** A field of lines as somebody has it who has only some of its columns. */
export const withColumns = <F extends Field>(field: F, keys: ReadonlySet<string>): F => {
  const { type } = field;
  if (type.kind !== 'line-items') return field;
  return {
    ...field,
    type: { ...type, columns: type.columns.filter(({ key }) => keys.has(columnKey(field.key, key))) },
  };
};

/** Lines with the cells of some columns only. `keys`: of columns, each with its field. */
export const withCells = (field: Field, rows: readonly ItemRow[], keys: ReadonlySet<string>): readonly ItemRow[] =>
  rows.map((row) =>
    Object.fromEntries(Object.entries(row).filter(([cell]) => cell === ROW_ID || keys.has(columnKey(field.key, cell)))),
  );
