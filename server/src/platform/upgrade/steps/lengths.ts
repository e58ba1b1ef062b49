import type Sqlite from 'better-sqlite3';

/** Fields of a register whose answers are lengths of time, and columns of its line items, when this step was written. */
interface Lengths {
  readonly fields: ReadonlySet<string>;
  /** By the field of the lines. */
  readonly columns: ReadonlyMap<string, ReadonlySet<string>>;
}

type Json = Readonly<Record<string, unknown>>;
interface FieldThen {
  readonly key: string;
  readonly type: { readonly kind: string; readonly columns?: readonly FieldThen[] };
}

/** Minutes of a length as it was kept (`P1DT1H35M`); whatever else it is stays as it is. */
export function minutesIn(value: unknown): unknown {
  const match = typeof value === 'string' ? /^P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(value) : null;
  if (!match) return value;
  const [days, hours, minutes, seconds] = match.slice(1).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
  ];
  return days * 1_440 + hours * 60 + minutes + Math.round(seconds / 60);
}

function asMinutes(key: string, value: unknown, { fields, columns }: Lengths): unknown {
  if (fields.has(key)) return minutesIn(value);
  const of = columns.get(key);
  if (!of || !Array.isArray(value)) return value;
  return (value as readonly Json[]).map((row) =>
    Object.fromEntries(Object.entries(row).map(([column, cell]) => [column, of.has(column) ? minutesIn(cell) : cell])),
  );
}

const inValues = (values: Json, lengths: Lengths): Json =>
  Object.fromEntries(Object.entries(values).map(([key, value]) => [key, asMinutes(key, value, lengths)]));

const inChanges = (changes: readonly Json[], lengths: Lengths): readonly Json[] =>
  changes.map((change) => {
    const key = String(change.field);
    return {
      ...change,
      before: asMinutes(key, change.before, lengths),
      after: asMinutes(key, change.after, lengths),
    };
  });

/** `values` where an object holds some under that name: a baseline, what a routing read. */
const inHeld = (held: Json, lengths: Lengths): Json =>
  typeof held.values === 'object' && held.values !== null
    ? { ...held, values: inValues(held.values as Json, lengths) }
    : held;

function lengthsByRegister(db: Sqlite.Database): ReadonlyMap<string, Lengths> {
  const texts = db
    .prepare(
      `select register, text from (
        select designs.id as register, draft as text from designs where kind = 'register'
        union all select design_id, content from design_states join designs on designs.id = design_id where kind = 'register'
        union all select register_id, draft from forms join designs on designs.id = forms.id
        union all select register_id, content from forms join design_states on design_id = forms.id
      ) where text like '%"duration"%'`,
    )
    .all() as { register: string; text: string }[];
  const found = new Map<string, { fields: Set<string>; columns: Map<string, Set<string>> }>();
  for (const { register, text } of texts) {
    const of = found.get(register) ?? { fields: new Set<string>(), columns: new Map<string, Set<string>>() };
    found.set(register, of);
    for (const { key, type } of (JSON.parse(text) as { fields?: readonly FieldThen[] }).fields ?? []) {
      if (type.kind === 'duration') of.fields.add(key);
      const columns = (type.columns ?? []).flatMap((column) => (column.type.kind === 'duration' ? [column.key] : []));
      if (columns.length > 0) of.columns.set(key, new Set([...(of.columns.get(key) ?? []), ...columns]));
    }
  }
  return found;
}

interface Place {
  readonly table: string;
  readonly column: string;
  readonly request: string;
  readonly renewed: (held: never, lengths: Lengths) => unknown;
}
const PLACES: readonly Place[] = [
  { table: 'requests', column: '"values"', request: 'id', renewed: inValues },
  { table: 'requests', column: 'routed', request: 'id', renewed: inHeld },
  { table: 'history', column: 'changes', request: 'request_id', renewed: inChanges },
  { table: 'history', column: 'data', request: 'request_id', renewed: inHeld },
  { table: 'rule_run_changes', column: 'changes', request: 'request_id', renewed: inChanges },
];

/**
 * Lengths of time are kept in minutes, which the database can compare and put in order: in requests,
 * their histories, what routing tables read, and what rules changed. What no two may have is claimed anew.
 */
export function lengthsInMinutes(db: Sqlite.Database): void {
  let changed = 0;
  for (const [register, lengths] of lengthsByRegister(db))
    for (const { table, column, request, renewed } of PLACES) {
      const update = db.prepare(`update ${table} set ${column} = ? where rowid = ?`);
      const page = db.prepare(
        `select ${table}.rowid as rowid, ${table}.${column} as text from ${table} join requests as whose on whose.id = ${table}.${request}
         where whose.register_id = ? and ${table}.rowid > ? and ${table}.${column} like '%"P%' order by ${table}.rowid limit 1000`,
      );
      for (let last = 0; ; ) {
        const rows = page.all(register, last) as { rowid: number; text: string }[];
        for (const { rowid, text } of rows) {
          const after = JSON.stringify(renewed(JSON.parse(text) as never, lengths));
          if (after === text) continue;
          update.run(after, rowid);
          changed += 1;
        }
        const end = rows.at(-1);
        if (!end) break;
        last = end.rowid;
      }
    }
  if (changed > 0) db.prepare("delete from settings where key = 'claims-of-all'").run();
}
