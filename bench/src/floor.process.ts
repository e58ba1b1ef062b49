import { createHmac, timingSafeEqual } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import Sqlite from 'better-sqlite3';
import express from 'express';
import { answering } from './processes.ts';
import { STORED_TABLES } from './stored.ts';

/**
 * The floor: the same work written by hand on Express and prepared statements, over a copy of the
 * same data. It knows who calls by the same signed cookie, stores the same rows as durably, and
 * answers the same bytes; what is computed of them is left out.
 */
const [path = '', secret = ''] = process.argv.slice(2);
const db = new Sqlite(path);
db.pragma('journal_mode = WAL');
db.pragma('synchronous = FULL');
db.pragma('cache_size = -65536');
db.pragma('foreign_keys = ON');

const sessions = db.prepare('select user_id as id from session where token = ? and expires_at > ?');
const people = db.prepare('select * from people where id = ?');
const groups = db.prepare('select group_key from memberships where person_id = ?');

function callerOf(cookie: string | undefined): string | null {
  const signed = decodeURIComponent(/tolvek\.session_token=([^;]+)/.exec(cookie ?? '')?.[1] ?? '');
  const dot = signed.lastIndexOf('.');
  const wanted = Buffer.from(createHmac('sha256', secret).update(signed.slice(0, dot)).digest('base64'));
  const given = Buffer.from(signed.slice(dot + 1));
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return null;
  const found = sessions.get(signed.slice(0, dot), Date.now()) as { id: string } | undefined;
  if (!found || !people.get(found.id)) return null;
  groups.all(found.id);
  return found.id;
}

const COLUMNS =
  'r.id, r.number, r."values", d.start, d.due as until, d.pauses, r.stage, r.phase, r.team, r.priority, r.due, r.updated_at, r.finished_at, r.release_id, r.register_id, p.name as requester, h.name as handler';
const page = db.prepare(
  `select ${COLUMNS} from requests r join people p on p.id = r.requester_id left join people h on h.id = r.handler_id left join deadlines d on d.request_id = r.id and d.key = 'finish' where r.trial = 0 order by r.created_at desc, r.id desc limit 51`,
);
const total = db.prepare('select count(*) as n from requests where trial = 0');
let ledgerBytes = '';

/** Rows that one submit stores, table by table, as ours stored them. */
interface Stored {
  readonly table: string;
  readonly row: Readonly<Record<string, unknown>>;
}
let samples: readonly { readonly inserts: readonly (() => void)[]; readonly bytes: string }[] = [];
let sent = 0;
let made = 0;
const known = db.prepare('select 1 from idempotency where scope = ? and key = ?');
const count = db.prepare(
  "update registers set next_number = next_number + 1 where id = (select id from designs where kind = 'register' and key = ?)",
);

/** Bytes as they were, after they travelled between processes. */
function revived(value: unknown): unknown {
  const { type, data } = (value ?? {}) as { readonly type?: unknown; readonly data?: readonly number[] };
  return type === 'Buffer' && data ? Buffer.from(data) : value;
}

/** For each stored row an insert of the same bytes, under names of its own. */
function prepareInserts(rows: readonly Stored[]): readonly (() => void)[] {
  let request = '';
  /** As long as an id, and after those before it. */
  const fresh = (): string => {
    made += 1;
    return `0f${String(made).padStart(24, '0')}`;
  };
  return [...rows]
    .sort((a, b) => STORED_TABLES.indexOf(a.table) - STORED_TABLES.indexOf(b.table))
    .map(({ table, row }) => {
      const columns = Object.keys(row);
      const statement = db.prepare(
        `insert into ${table} (${columns.map((each) => `"${each}"`).join(', ')}) values (${columns.map(() => '?').join(', ')})`,
      );
      return () => {
        if (table === 'requests') request = fresh();
        statement.run(
          columns.map((column) => {
            if (column === 'id') return table === 'requests' ? request : fresh();
            if (column === 'request_id' && row[column] !== null) return request;
            return ['number', 'token_hash', 'key'].includes(column) ? fresh() : revived(row[column]);
          }),
        );
      };
    });
}
const store = db.transaction((key: string, inserts: readonly (() => void)[]) => {
  known.get('submit', key);
  count.run('site-access');
  for (const insert of inserts) insert();
});

const door = db.prepare(
  'select d.id, d.form_id as form, g.draft from doors d join designs g on g.id = d.id where d.slug = ? and d.removed_at is null',
);
const form = db.prepare('select number from designs where id = ?');
const release = db.prepare('select content from design_states where design_id = ? and number = ?');
const came = db.prepare(
  "select count(*) as n from (select 1 from requests where door_id = ? and trial = 0 and stage not in ('refused', 'withdrawn') limit 12)",
);
let doorBytes = '';

/** Calls of each address within a minute. */
const calls = new Map<string, number>();
let minute = 0;
function isTooMany(address: string): boolean {
  const now = Math.floor(Date.now() / 60_000);
  if (now !== minute) calls.clear();
  minute = now;
  const before = calls.get(address) ?? 0;
  calls.set(address, before + 1);
  return before >= 100_000;
}
let doorHeaders: Readonly<Record<string, string>> = {};

const app = express();
app.get('/door/:slug', (request, response) => {
  if (isTooMany(String(request.headers['x-forwarded-for']))) return void response.status(429).end();
  response.set(doorHeaders);
  const found = door.get(request.params.slug) as { id: string; form: string } | undefined;
  if (!found) return void response.status(404).end();
  const { number } = form.get(found.form) as { number: number };
  release.get(found.form, number);
  came.get(found.id);
  response.type('application/json').send(doorBytes);
});
app.get('/ledger', (request, response) => {
  if (!callerOf(request.headers.cookie)) return void response.status(401).end();
  page.all();
  total.get();
  response.type('application/json').send(ledgerBytes);
});
/** A page of a view, and how many each of its groups has, as somebody would ask for them by hand. */
let view: { readonly asked: readonly Sqlite.Statement[]; readonly bytes: string } | null = null;
app.post('/view', express.json(), (request, response) => {
  if (!callerOf(request.headers.cookie)) return void response.status(401).end();
  for (const each of view?.asked ?? []) each.all();
  response.type('application/json').send(view?.bytes);
});
app.post('/submit', express.json(), (request, response) => {
  if (!callerOf(request.headers.cookie)) return void response.status(401).end();
  const sample = samples[sent % samples.length];
  sent += 1;
  store.immediate(String(request.headers['idempotency-key']), sample?.inserts ?? []);
  response.type('application/json').send(sample?.bytes);
});
app.post('/typing', express.json(), (_request, response) => void response.json({ problems: [] }));
const server = createServer(app).listen(0, '127.0.0.1');
await new Promise((done) => server.once('listening', done));
const delay = monitorEventLoopDelay({ resolution: 1 });
delay.enable();
answering({
  url: () => `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
  door: ({ text, headers }: { readonly text: string; readonly headers: Readonly<Record<string, string>> }) => {
    doorBytes = text;
    doorHeaders = headers;
  },
  ledgerBytes: (bytes: never) => {
    ledgerBytes = bytes;
  },
  view: ({ asked, bytes }: { readonly asked: readonly string[]; readonly bytes: string }) => {
    view = { asked: asked.map((each) => db.prepare(each)), bytes };
  },
  samples: (some: never) => {
    samples = (some as readonly { readonly rows: readonly Stored[]; readonly bytes: string }[]).map(
      ({ rows, bytes }) => ({ inserts: prepareInserts(rows), bytes }),
    );
  },
  resetDelay: () => delay.reset(),
  delay: () => ({ p99: delay.percentile(99) / 1e6 - 1, most: delay.max / 1e6 - 1 }),
});
