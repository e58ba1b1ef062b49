import type Sqlite from 'better-sqlite3';

/** As rows were when this step was written. */
interface Entry {
  readonly id: string;
  readonly at: number;
  readonly kind: string;
  readonly words: string;
  readonly changes: string;
}
interface Change {
  readonly field: string;
  readonly before: unknown;
  readonly after: unknown;
}
interface Stage {
  readonly key: string;
  readonly label: string;
}

/** What words stood for; null where they don’t say exactly one thing. */
interface Known {
  readonly stageOf: (label: string) => string | null;
  readonly personOf: (name: string) => string | null;
  /** Steps decided about the request, by their words. */
  readonly decisions: ReadonlyMap<
    string,
    { readonly step: string; readonly verdict: string; readonly comment: string }
  >;
  readonly release: number;
}

/** A text that stands for exactly one of several; null when it stands for none, or for many. */
function oneOf<T>(pairs: readonly (readonly [string, T])[]): (text: string) => T | null {
  const found = new Map<string, T | null>();
  for (const [text, value] of pairs) found.set(text, found.has(text) ? null : value);
  return (text) => found.get(text) ?? null;
}

/** What an entry says, as data; `told` where its words say no one thing. `handler`: who had it before. */
function dataOf({ kind, words }: Entry, known: Known, handler: string | null): object {
  const told = { kind: 'told', words };
  switch (kind) {
    case 'arrived': {
      const door = /^Sent through the (staff|outside) door, release (\d+)$/.exec(words);
      if (door) return { kind, through: { by: 'door', kind: door[1] }, release: Number(door[2]) };
      const sheet = /^Taken in from a sheet, release (\d+)$/.exec(words);
      if (sheet) return { kind, through: { by: 'sheet of rows' }, release: Number(sheet[1]) };
      if (words === 'Trial request, sent from the proof')
        return { kind, through: { by: 'trial' }, release: known.release };
      return told;
    }
    case 'fields': {
      const values = { kind: 'values', changes: [] };
      if (words === 'Fields changed') return { ...values, why: 'changed' };
      const rule = /^Rule “(.*)” was applied to what was there$/s.exec(words);
      if (rule) return { ...values, why: 'rule', rule: rule[1] };
      const back = /^What rule “(.*)” changed was taken back$/s.exec(words);
      if (back) return { ...values, why: 'taken back', rule: back[1] };
      const followed = /^Followed a change of (\S+)$/.exec(words);
      if (followed) return { ...values, why: 'followed', number: followed[1] };
      const merged = /^Terms of “(.*)” were merged$/s.exec(words);
      return merged ? { ...values, why: 'merged', vocabulary: merged[1] } : told;
    }
    case 'stage': {
      const [from, to, more] = words.split(' → ').map(known.stageOf);
      return from && to && more === undefined ? { kind, from, to } : told;
    }
    case 'handler': {
      if (words === 'Given back to the team') return { kind, from: handler, to: null };
      const to = known.personOf(words.replace(/^Given to /, ''));
      return to && words.startsWith('Given to ') ? { kind, from: handler, to } : told;
    }
    case 'comment': {
      const said = { kind: 'said', text: '' };
      if (words === 'Note for the desk') return { ...said, to: 'desk', byRequester: false };
      if (words === 'Message to the requester') return { ...said, to: 'requester', byRequester: false };
      return words === 'Message from the requester' ? { ...said, to: 'requester', byRequester: true } : told;
    }
    case 'decision': {
      const decided = known.decisions.get(words);
      return decided ? { kind: 'decided', ...decided } : told;
    }
    case 'reminder':
      return words === 'A reminder went out before the deadline' ? { kind: 'rang', timer: kind } : told;
    case 'escalation':
      return words === 'The deadline passed; the lead was told' ? { kind: 'rang', timer: kind } : told;
    default:
      return told;
  }
}

interface Request {
  readonly rowid: number;
  readonly id: string;
  readonly register_id: string;
  readonly release_id: string;
  readonly values: string;
  readonly created_at: number;
}

/** All requests, some at once: a statement that is still being read can’t be written beside. */
function* pageByPage(page: Sqlite.Statement): Generator<Request> {
  for (let last = 0; ; ) {
    const rows = page.all(last) as Request[];
    yield* rows;
    const end = rows.at(-1);
    if (!end) return;
    last = end.rowid;
  }
}

const holds = (value: unknown): string => JSON.stringify(value ?? null);

/**
 * The history of each request becomes data: what its words say where that is exactly one thing,
 * else that they were told. A baseline holds what each request held at first, by undoing from
 * today; where what is held today was never written down (a new day changed it), that is now, so
 * that the history played from the baseline ends at what is held.
 */
export function historyAsData(db: Sqlite.Database): void {
  const personOf = oneOf(
    (db.prepare('select id, name from people').all() as { id: string; name: string }[]).map(({ id, name }) => [
      name,
      id,
    ]),
  );
  const stages = new Map(
    (
      db
        .prepare(
          "select designs.id, json_extract(design_states.content, '$.stages') as stages from designs join design_states on design_id = designs.id and design_states.number = designs.number where kind = 'register'",
        )
        .all() as { id: string; stages: string }[]
    ).map(({ id, stages: text }) => [id, oneOf((JSON.parse(text) as Stage[]).map(({ key, label }) => [label, key]))]),
  );
  const releases = new Map(
    (db.prepare('select id, number from design_states').all() as { id: string; number: number }[]).map((each) => [
      each.id,
      each.number,
    ]),
  );
  const entriesOf = db.prepare('select id, at, kind, words, changes from history where request_id = ? order by at, id');
  const decidedOf = db.prepare(
    "select label, state, comment from approvals where request_id = ? and state in ('approved', 'refused')",
  );
  const write = db.prepare('update history set data = ? where id = ?');
  const add = db.prepare(
    "insert into history (id, request_id, at, actor_id, kind, words, changes, comment, data) values (?, ?, ?, null, 'fields', '', ?, null, ?)",
  );
  const page = db.prepare(
    'select rowid, id, register_id, release_id, "values", created_at from requests where rowid > ? order by rowid limit 500',
  );
  for (const request of pageByPage(page)) {
    const entries = entriesOf.all(request.id) as Entry[];
    const decided = decidedOf.all(request.id) as { label: string; state: string; comment: string | null }[];
    const known: Known = {
      personOf,
      stageOf: stages.get(request.register_id) ?? (() => null),
      decisions: new Map(
        decided.map(({ label, state }) => [
          `${label}: ${state}`,
          { step: label, verdict: state === 'approved' ? 'approve' : 'refuse', comment: '' },
        ]),
      ),
      release: releases.get(request.release_id) ?? 0,
    };
    let handler: string | null = null;
    for (const entry of entries) {
      const data = dataOf(entry, known, handler) as { kind: string; to?: string | null };
      if (data.kind === 'handler') handler = data.to ?? null;
      write.run(JSON.stringify(data), entry.id);
    }
    const today = JSON.parse(request.values) as Record<string, unknown>;
    const changes = entries.flatMap((entry) => JSON.parse(entry.changes) as Change[]);
    const first = { ...today };
    for (const { field, before } of [...changes].reverse()) first[field] = before;
    const played = { ...first };
    for (const { field, after } of changes) played[field] = after;
    const missing = [...new Set([...Object.keys(today), ...Object.keys(played)])].flatMap((field): Change[] =>
      holds(played[field]) === holds(today[field])
        ? []
        : [{ field, before: played[field] ?? null, after: today[field] ?? null }],
    );
    const values = Object.fromEntries(Object.entries(first).filter(([, value]) => value !== null));
    add.run(
      `baseline/${request.id}`,
      request.id,
      request.created_at,
      '[]',
      JSON.stringify({ kind: 'baseline', values }),
    );
    if (missing.length > 0) {
      const last = Math.max(request.created_at, ...entries.map((entry) => entry.at));
      const day = JSON.stringify({ kind: 'values', why: 'day', changes: [] });
      add.run(`today/${request.id}`, request.id, last, JSON.stringify(missing), day);
    }
  }
}
