import { Column, is, Param, Placeholder, SQL, Subquery } from 'drizzle-orm';

type Decoder = { readonly mapFromDriverValue: (value: unknown) => unknown };
type Selected = { readonly path: readonly string[]; readonly field: unknown };
type Row = Record<string, unknown>;

/** What of a built query says how its rows are read: the library keeps these to itself. */
interface Built {
  readonly fields?: readonly Selected[];
  readonly customResultMapper?: unknown;
  readonly stmt: {
    readonly run: (...params: unknown[]) => unknown;
    readonly raw: () => {
      readonly get: (...params: unknown[]) => unknown[] | undefined;
      readonly all: (...params: unknown[]) => readonly unknown[][];
    };
  };
  readonly query: { readonly params: readonly unknown[] };
  run: (values?: Row) => unknown;
  all: (values?: Row) => unknown;
  get: (values?: Row) => unknown;
  values: (values?: Row) => readonly unknown[][];
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

/** What a statement is run with, found out once: as it is, or what is given under a name, as its column stores it. */
function paramsOf(params: readonly unknown[]): (given: Row) => unknown[] {
  const parts = params.map((param) => {
    const placeholder = is(param, Placeholder) ? param : is(param, Param) ? param.value : undefined;
    if (!is(placeholder, Placeholder)) return { value: param };
    const { name } = placeholder as { readonly name: string };
    return { name, encoder: is(param, Param) ? param.encoder : null };
  });
  if (parts.every((part) => part.name === undefined)) return () => params as unknown[];
  return (given) =>
    parts.map(({ name, encoder, value }) => {
      if (name === undefined) return value;
      if (!(name in given)) throw new Error(`Nothing is given for “${name}”.`);
      return encoder ? encoder.mapToDriverValue(given[name]) : given[name];
    });
}

/**
 * Has all queries of a connection take what they are given, and read their rows, in a way that is found out once for
 * each of them. What they do and give is the same.
 */
export function runQuickly(db: object): void {
  const { session } = db as { session: { prepareQuery: (...what: readonly unknown[]) => Built } };
  const prepare = session.prepareQuery.bind(session);
  session.prepareQuery = (...what) => {
    const query = prepare(...what);
    const { stmt } = query;
    const given = paramsOf(query.query.params);
    query.run = (values = {}) => stmt.run(...given(values));
    query.values = (values = {}) => stmt.raw().all(...given(values));
    const read = query.fields && !query.customResultMapper ? readerOf(query.fields) : undefined;
    if (!read) return query;
    query.all = (values = {}) =>
      stmt
        .raw()
        .all(...given(values))
        .map(read);
    query.get = (values = {}) => {
      const row = stmt.raw().get(...given(values));
      return row && read(row);
    };
    return query;
  };
}
