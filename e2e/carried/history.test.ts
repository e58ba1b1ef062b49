import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterAll, describe, expect, it } from 'vitest';
import { upgrade } from '../../server/src/platform/upgrade/index.ts';
import { layOut } from './archive.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-history-'));
layOut('0.1.0', folder);
upgrade(folder);
const db = new Sqlite(join(folder, 'tolvek.sqlite'));
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true });
});

interface Row {
  readonly data: string;
  readonly changes: string;
  readonly words: string;
}

/** Histories that were words, read as data: looked at in the tables alone, by nothing of the code’s own. */
describe('the histories of release 0.1.0', () => {
  const requests = db.prepare('select id, number, "values" from requests').all() as {
    id: string;
    number: string;
    values: string;
  }[];
  const entriesOf = db.prepare('select data, changes, words from history where request_id = ? order by at, id');

  it('end, played from their baselines, at what each request holds', () => {
    const sorted = (values: object): string => JSON.stringify(Object.entries(values).sort());
    const apart = requests.filter(({ id, values }) => {
      const entries = entriesOf.all(id) as Row[];
      const baseline = entries.map((entry) => JSON.parse(entry.data)).find((data) => data.kind === 'baseline');
      const played: Record<string, unknown> = { ...baseline?.values };
      for (const entry of entries)
        for (const { field, after } of JSON.parse(entry.changes)) {
          if (after === null) delete played[field];
          else played[field] = after;
        }
      return sorted(played) !== sorted(JSON.parse(values));
    });
    expect(apart.map(({ number }) => number)).toEqual([]);
    expect(requests.length).toBeGreaterThan(100);
  });

  it('are data in each entry; words stay where they say no one thing', () => {
    const kinds = new Map<string, number>();
    for (const { data } of db.prepare('select data from history').all() as Row[]) {
      const { kind, why } = JSON.parse(data) as { kind: string; why?: string };
      const name = why ? `${kind} ${why}` : kind;
      kinds.set(name, (kinds.get(name) ?? 0) + 1);
    }
    console.log([...kinds].map(([kind, n]) => `${kind} ${n}`).join(', '));
    expect([...kinds.keys()].sort()).toEqual([
      ...['arrived', 'baseline', 'decided', 'handler', 'rang', 'said', 'stage'],
      ...['values changed', 'values day', 'values followed', 'values merged', 'values rule', 'values taken back'],
    ]);
  });

  it('stay words for a stage or a person whose name several have, or nobody', () => {
    const other = mkdtempSync(join(tmpdir(), 'tolvek-told-'));
    layOut('0.1.0', other);
    const before = new Sqlite(join(other, 'tolvek.sqlite'));
    before.exec("update people set name = 'Ilse Brandvold' where name = 'Nuala Fenwick'");
    before.exec("update history set words = 'Arrived → Nowhere' where words = 'Arrived → In hand'");
    before.close();
    upgrade(other);
    const after = new Sqlite(join(other, 'tolvek.sqlite'));
    const told = (
      after.prepare("select data, words from history where json_extract(data, '$.kind') = 'told'").all() as Row[]
    ).map((row) => {
      expect(JSON.parse(row.data)).toEqual({ kind: 'told', words: row.words });
      return row.words;
    });
    after.close();
    rmSync(other, { recursive: true });
    expect([...new Set(told)].sort()).toEqual([
      'Arrived → Nowhere',
      'Given to Ilse Brandvold',
      'Given to Nuala Fenwick',
    ]);
  });
});
