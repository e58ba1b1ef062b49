import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { showValue } from '@tolvek/core/register';
import { afterAll, expect, test } from 'vitest';
import { openDatabase } from '../database.ts';
import { lengthsInMinutes } from './steps/lengths.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-lengths-'));
const { $client: db } = openDatabase(folder);
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true, force: true });
});

test('lengths of time say what they said, in minutes; words that look like one stay words', () => {
  db.pragma('foreign_keys = OFF');
  const fields = [
    { key: 'takes', type: { kind: 'duration' } },
    { key: 'words', type: { kind: 'text' } },
    {
      key: 'lines',
      type: {
        kind: 'line-items',
        columns: [
          { key: 'runs', type: { kind: 'duration' } },
          { key: 'note', type: { kind: 'text' } },
        ],
      },
    },
  ];
  db.prepare("insert into designs (id, kind, key, draft, number) values ('r', 'register', 'r', ?, 1)").run(
    JSON.stringify({ fields }),
  );
  const was = { takes: 'P1DT2H5M', words: 'PT1H', lines: [{ runs: 'PT35M', note: 'PT9M' }, { note: 'P1D' }] };
  const insert = db.prepare(
    `insert into requests (id, number, register_id, form_id, release_id, stage, phase, "values", routed, created_at, updated_at)
     values (?, ?, ?, '', '', 's', 'arrived', ?, ?, 0, 0)`,
  );
  insert.run('q', 'Q-1', 'r', JSON.stringify(was), JSON.stringify({ row: 1, values: { takes: 'PT0S' }, facts: null }));
  insert.run('other', 'O-1', 'elsewhere', JSON.stringify(was), null);
  db.prepare(
    "insert into history (id, request_id, at, kind, words, changes, data) values ('h', 'q', 0, 'fields', '', ?, ?)",
  ).run(
    JSON.stringify([{ field: 'takes', before: null, after: 'PT90M' }]),
    JSON.stringify({ kind: 'baseline', values: was }),
  );
  db.exec("insert into settings (key, value) values ('claims-of-all', 'yes')");
  lengthsInMinutes(db);

  const read = (query: string) => JSON.parse(db.prepare(query).pluck().get() as string);
  const is = { takes: 1_565, words: 'PT1H', lines: [{ runs: 35, note: 'PT9M' }, { note: 'P1D' }] };
  expect(read(`select "values" from requests where id = 'q'`)).toEqual(is);
  expect(showValue({ type: { kind: 'duration' } }, is.takes, () => undefined)).toBe('1 day 2 h 5 min');
  expect(read("select routed from requests where id = 'q'").values).toEqual({ takes: 0 });
  expect(read("select changes from history where id = 'h'")).toEqual([{ field: 'takes', before: null, after: 90 }]);
  expect(read("select data from history where id = 'h'").values).toEqual(is);
  expect(read(`select "values" from requests where id = 'other'`)).toEqual(was);
  expect(db.prepare("select count(*) from settings where key = 'claims-of-all'").pluck().get()).toBe(0);
});
