import { Column, fillPlaceholders, is, SQL, Subquery } from 'drizzle-orm';

type Decoder = { readonly mapFromDriverValue: (value: unknown) => unknown };
type Selected = { readonly path: readonly string[]; readonly field: unknown };
type Row = Record<string, unknown>;

/** What of a built query says how its rows are read: the library keeps these to itself. */
interface Built {
  readonly fields?: readonly Selected[];
  readonly customResultMapper?: unknown;
  readonly stmt: { raw: () => { get: (...params: unknown[]) => unknown[] | undefined } };
  readonly query: { readonly params: unknown[] };
  all: (given?: Row) => unknown;
  get: (given?: Row) => unknown;
  values: (given?: Row) => readonly unknown[][];
}

function decoderOf(field: unknown): Decoder {
  if (is(field, Column)) return field as unknown as Decoder;
  if (is(field, SQL)) return (field as unknown as { decoder: Decoder }).decoder;
  if (is(field, Subquery)) return (field._.sql as unknown as { decoder: Decoder }).decoder;
  return (field as { sql: { decoder: Decoder } }).sql.decoder;
}

/**
 * How rows of these columns become objects, found out once for all of them instead of for each column of each row: a
 * page reads some thousand. Undefined where columns stand in objects of their own, which the library alone puts
 * together.
 */
function readerOf(fields: readonly Selected[]): ((row: readonly unknown[]) => Row) | undefined {
  if (fields.some(({ path }) => path.length !== 1)) return undefined;
  const columns = fields.map(({ path, field }) => {
    const decoder = decoderOf(field);
    const isAsStored = decoder.mapFromDriverValue === Column.prototype.mapFromDriverValue;
    return { name: path[0] as string, decoder: isAsStored ? null : decoder };
  });
  return (row) => {
    const made: Row = {};
    for (let at = 0; at < columns.length; at += 1) {
      const { name, decoder } = columns[at] as (typeof columns)[number];
      const value = row[at];
      made[name] = value === null || !decoder ? value : decoder.mapFromDriverValue(value);
    }
    return made;
  };
}

/** Has all queries of a connection read their rows so. What they give is the same. */
export function readRowsQuickly(db: object): void {
  const { session } = db as { session: { prepareQuery: (...what: readonly unknown[]) => Built } };
  const prepare = session.prepareQuery.bind(session);
  session.prepareQuery = (...what) => {
    const query = prepare(...what);
    const read = query.fields && !query.customResultMapper ? readerOf(query.fields) : undefined;
    if (!read) return query;
    query.all = (given) => query.values(given).map(read);
    query.get = (given = {}) => {
      const row = query.stmt.raw().get(...fillPlaceholders(query.query.params, given));
      return row && read(row);
    };
    return query;
  };
}
