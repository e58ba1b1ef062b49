import type Sqlite from 'better-sqlite3';

/** As requests kept what they are due by when this step was written. */
interface Row {
  readonly id: string;
  readonly phase: string;
  readonly deadline: string;
}
interface Deadline {
  readonly start: number;
  readonly due: number;
  readonly allowance: number;
  readonly workingDays: number;
  readonly pauses: readonly object[];
}

const isThing = `register_id in (
  select d.id from designs d join design_states s on s.design_id = d.id and s.number = d.number
  where d.kind = 'register' and json_extract(s.content, '$.holds') = 'things')`;

/** What a request is due by gets a row of its own, under the id of the request: each had just one. */
export function deadlinesAsRows(db: Sqlite.Database): void {
  const insert = db.prepare(
    `insert into deadlines (id, request_id, key, start, due, allowance, working_days, pauses, state)
     values (?, ?, 'finish', ?, ?, ?, ?, ?, ?)`,
  );
  const page = db.prepare(
    `select id, phase, deadline from requests where id > ? and not ${isThing} order by id limit 1000`,
  );
  for (let last = ''; ; ) {
    const rows = page.all(last) as Row[];
    for (const { id, phase, deadline } of rows) {
      const { start, due, allowance, workingDays, pauses } = JSON.parse(deadline) as Deadline;
      const state = phase === 'finished' ? 'ended' : 'open';
      insert.run(id, id, start, due, allowance, workingDays, JSON.stringify(pauses), state);
    }
    const end = rows.at(-1);
    if (!end) break;
    last = end.id;
  }
  db.prepare('update timers set deadline_id = request_id where request_id in (select request_id from deadlines)').run();
}

/** Things were filled up with what a request has; what is not theirs is empty from now on. */
export function thingsAreThings(db: Sqlite.Database): void {
  db.prepare(`update requests set team = null, priority = null, routed = null, due = null where ${isThing}`).run();
}
