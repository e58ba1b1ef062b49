import { claimOf, type RegisterContent } from '@tolvek/core/form';
import { type Field, numberPrefix, numberWith, type Values } from '@tolvek/core/register';
import { hashOf, numberIn, pack, tokenOf, unpack } from '@tolvek/server';
import Sqlite from 'better-sqlite3';
import { decodeTime, encodeTime } from 'ulid';

type Row = Record<string, unknown>;

/** What belongs to one request: each table after those it refers to, and the column that says whose a row is. */
const OF_A_REQUEST = [
  ['history', 'request_id'],
  ['deadlines', 'request_id'],
  ['timers', 'request_id'],
  ['approval_rounds', 'request_id'],
  ['approval_steps', 'round_id'],
  ['seats', 'request_id'],
  ['links', 'target_id'],
  ['notices', 'request_id'],
  ['pointers', 'request_id'],
] as const;

/** Columns that hold a moment, epoch ms. */
const MOMENTS: ReadonlySet<string> = new Set([
  ...['created_at', 'updated_at', 'finished_at', 'due', 'start', 'at', 'opened_at', 'ended_at', 'decided_at'],
  ...['next_attempt_at', 'sent_at', 'expires_at', 'used_at'],
]);
const DAY = 86_400_000;

/** An id, wherever one stands. */
export const ID = /\b0[0-9a-hjkmnp-tv-z]{25}\b/g;
const DATE = /\b2\d{3}-\d\d-\d\d(?=\b|T)/g;
const MOMENT = /\b1[5-9]\d{11}\b/g;

/** A request as it was written once, with all rows that belong to it. */
interface Pattern {
  readonly request: Row;
  readonly rows: readonly { readonly table: string; readonly row: Row }[];
  /** Its own ids: others it names stay. */
  readonly own: ReadonlySet<string>;
  readonly values: Values;
  readonly register: Register;
}

interface Register extends RegisterContent {
  readonly id: string;
  next: number;
}

/** How copies differ from what they are copies of. */
export interface Copying {
  /** Which time round it is, from 1: no two rounds make the same ids. */
  readonly round: number;
  /** Whole days that everything happens later; below zero: earlier. */
  readonly days: number;
  /** What else is to be so of a copy: columns of its request. */
  readonly but?: (place: number) => Row;
}

/**
 * Writes requests in bulk, as copies of requests that the application itself has written: each a
 * request of its own, with its number, history, deadlines, decision, letters, claims and pointers,
 * as if the same had been asked and done so many days later. A law holds it against the application
 * doing just that.
 */
export class Generator {
  private readonly db: Sqlite.Database;
  private readonly secret: string;
  private readonly patterns: readonly Pattern[];
  private readonly registers: ReadonlyMap<string, Register>;
  private readonly inserts = new Map<string, { readonly columns: readonly string[]; readonly run: Sqlite.Statement }>();

  /** `which`: a condition on requests that says what is copied. */
  constructor(path: string, secret: string, which: string, most: number) {
    this.db = new Sqlite(path);
    this.secret = secret;
    // Nothing of it has to survive: it is made for this run.
    this.db.pragma('journal_mode = OFF');
    this.db.pragma('synchronous = OFF');
    this.db.pragma('foreign_keys = OFF');
    this.db.pragma('cache_size = -400000');
    this.registers = new Map(
      (
        this.db
          .prepare(
            'select r.id, r.next_number as next, s.content from registers r join designs d on d.id = r.id join design_states s on s.design_id = d.id and s.number = d.number',
          )
          .all() as { id: string; next: number; content: string }[]
      ).map(({ id, next, content }) => [id, { id, next, ...(JSON.parse(content) as RegisterContent) }]),
    );
    const found = this.db
      .prepare(
        `select * from requests where trial = 0 and due is not null and ${which} order by created_at, number limit ?`,
      )
      .all(most) as Row[];
    this.patterns = found.map((request) => this.patternOf(request));
  }

  get size(): number {
    return this.patterns.length;
  }

  private patternOf(request: Row): Pattern {
    const rows: { table: string; row: Row }[] = [];
    const own = new Set([request.id as string]);
    for (const [table, of] of OF_A_REQUEST) {
      const owners = table === 'approval_steps' || table === 'links' ? [...own] : [request.id];
      for (const owner of owners)
        for (const row of this.prepared(`select * from ${table} where ${of} = ? order by rowid`).all(owner) as Row[]) {
          rows.push({ table, row });
          if (typeof row.id === 'string') own.add(row.id);
        }
    }
    const register = this.registers.get(request.register_id as string);
    if (!register) throw new Error(`No register of ${String(request.number)}.`);
    const values = JSON.parse(request.values as string) as Values;
    return { request, rows, own, register, values };
  }

  private readonly statements = new Map<string, Sqlite.Statement>();
  private prepared(text: string): Sqlite.Statement {
    let statement = this.statements.get(text);
    if (!statement) this.statements.set(text, (statement = this.db.prepare(text)));
    return statement;
  }

  private insert(table: string, row: Row): void {
    let into = this.inserts.get(table);
    if (!into) {
      const columns = Object.keys(row);
      const names = columns.map((each) => `"${each}"`).join(', ');
      const run = this.db.prepare(`insert into ${table} (${names}) values (${columns.map(() => '?').join(', ')})`);
      this.inserts.set(table, (into = { columns, run }));
    }
    into.run.run(into.columns.map((column) => row[column]));
  }

  /** Copies every pattern once, in the order they arrived; stops after `most` of them. Returns how many. */
  copy({ round, days, but }: Copying, most = Number.POSITIVE_INFINITY): number {
    const some = this.patterns.slice(0, most);
    this.db.exec('begin');
    for (const [place, pattern] of some.entries()) this.copyOne(pattern, round, days, but?.(place) ?? {});
    for (const { id, next } of this.registers.values())
      this.prepared('update registers set next_number = ? where id = ?').run(next, id);
    this.db.exec('commit');
    return some.length;
  }

  private copyOne(
    { request, rows, own, register, values: before }: Pattern,
    round: number,
    days: number,
    but: Row,
  ): void {
    const later = laterBy(days);
    const idOf = (id: string): string => (own.has(id) ? otherId(id, days * DAY, round) : id);
    const number = numberIn(register.prefix, register.next);
    register.next += 1;
    const given = this.givenTo(register, before, (request.created_at as number) + days * DAY, round);
    const others = [[request.number as string, number] as const, ...given.map(({ was, is }) => [was, is] as const)].map(
      ([was, is]) => [new RegExp(`(?<!\\w)${literal(was)}(?!\\w)`, 'g'), is] as const,
    );
    const inText = (text: string): string =>
      others.reduce((all, [was, is]) => all.replace(was, is), later(text.replace(ID, idOf)));
    const moved = (row: Row): Row =>
      Object.fromEntries(
        Object.entries(row).map(([column, value]) => {
          if (typeof value === 'number') return [column, MOMENTS.has(column) ? value + days * DAY : value];
          if (typeof value === 'string') return [column, inText(value)];
          if (Buffer.isBuffer(value)) return [column, pack(JSON.parse(inText(JSON.stringify(unpack(value)))))];
          return [column, value];
        }),
      );
    const copy: Row = { ...moved(request), ...but };
    const values = JSON.parse(copy.values as string) as Values;
    this.insert('requests', copy);
    for (const { table, row } of rows) {
      const made = moved(row);
      this.insert(
        table,
        table === 'links' ? { ...made, token_hash: hashOf(tokenOf(this.secret, made.id as string)) } : made,
      );
    }
    const isFinished = request.phase === 'finished';
    for (const rule of register.unique) {
      const value = claimOf(rule, register.fields, values);
      if (value === null || (rule.among === 'unfinished' && isFinished)) continue;
      this.insert('claims', { register_id: register.id, rule_id: rule.id, value, request_id: copy.id });
    }
  }

  /** What a copy can’t have as it was: running numbers of its own, and answers that no two may have. */
  private givenTo(register: Register, values: Values, at: number, round: number): { was: string; is: string }[] {
    const given: { was: string; is: string }[] = [];
    const day = new Date(at).toISOString().slice(0, 10);
    for (const field of register.fields) {
      const was = values[field.key];
      const is = field.source === 'given' && typeof was === 'string' ? this.nextOf(register, field, day) : undefined;
      if (is !== undefined) given.push({ was: was as string, is });
    }
    for (const rule of register.unique)
      for (const key of rule.among === 'all' ? rule.fields : []) {
        const was = values[key];
        if (typeof was === 'string') given.push({ was, is: unlike(was, round) });
      }
    return given;
  }

  private nextOf({ id }: Register, { key, type }: Field, day: string): string | undefined {
    if (type.kind !== 'running-number') return undefined;
    const prefix = numberPrefix(type.prefix, day);
    const { next } = (this.prepared(
      'insert into counters (register_id, field, prefix, next) values (?, ?, ?, 2) on conflict do update set next = next + 1 returning next',
    ).get(id, key, prefix) ?? {}) as { next: number };
    return numberWith(prefix, type.digits, next - 1);
  }

  close(): void {
    this.db.pragma('journal_mode = WAL');
    this.db.close();
  }
}

/** An answer that nobody has given in another round. */
export const unlike = (answer: string, round: number): string => `${answer} ${round}`;

const literal = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Dates and moments in a text, so many days later. */
function laterBy(days: number): (text: string) => string {
  if (days === 0) return (text) => text;
  return (text) =>
    text
      .replace(DATE, (date) => new Date(Date.parse(date) + days * DAY).toISOString().slice(0, 10))
      .replace(MOMENT, (moment) => String(Number(moment) + days * DAY));
}

/**
 * Another ULID in the same order: its first ten digits are a moment in ms, which is moved; the round stands in its last
 * six, so that no two rounds make the same.
 */
function otherId(id: string, by: number, round: number): string {
  const all = id.toUpperCase();
  const last = decodeTime(`0000${all.slice(-6)}${all.slice(0, 16)}`) ^ round;
  return `${encodeTime(decodeTime(all) + by, 10)}${all.slice(10, -6)}${encodeTime(last, 6)}`.toLowerCase();
}
