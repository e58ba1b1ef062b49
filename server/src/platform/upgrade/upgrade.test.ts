import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { afterAll, describe, expect, it } from 'vitest';
import { dump } from './dump.ts';
import { isBehind, upgrade, versionOf } from './index.ts';
import { EARLY, REBUILDS } from './rebuilds.ts';

const folders: string[] = [];
afterAll(() => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});
const NOW = EARLY.length;

/** A folder of an early release, with people whom others refer to. */
function made(): string {
  const folder = mkdtempSync(join(tmpdir(), 'tolvek-upgrade-'));
  folders.push(folder);
  upgrade(folder, { migrations: EARLY });
  const db = opened(folder);
  db.exec(`
    insert into people (id, kind, name, email) values ('a', 'staff', 'Ada', 'ada@x.example'), ('b', 'staff', 'Bo', 'bo@x.example');
    insert into groups (key, name) values ('boats', 'Boats');
    insert into memberships (group_key, person_id) values ('boats', 'a'), ('boats', 'b');
    insert into user (id, name, email, created_at, updated_at) values ('a', 'Ada', 'ada@x.example', 1, 1);
    insert into session (id, expires_at, token, created_at, updated_at, user_id) values ('s', 9, 't', 1, 1, 'a');
    insert into registers (id, key, name, prefix, fields, stages, access, desk_groups) values ('r', 'r', 'R', 'RR', '[]', '[]', '{"rules":[]}', '[]');
  `);
  db.close();
  return folder;
}

const opened = (folder: string): Sqlite.Database => new Sqlite(join(folder, 'tolvek.sqlite'));
const names = (folder: string): readonly string[] =>
  readdirSync(folder).filter((name) => name.startsWith('tolvek-version'));

describe('bringing a data folder up to date', () => {
  it('empties nothing that refers to a table that is rebuilt', () => {
    const folder = made();
    expect(isBehind(folder, { migrations: EARLY })).toBe(false);
    expect(isBehind(folder, { migrations: REBUILDS })).toBe(true);
    upgrade(folder, { migrations: REBUILDS });
    const db = opened(folder);
    expect(db.prepare('select does, language from people order by id').all()).toEqual([
      { does: 'ADA', language: 'en' },
      { does: 'BO', language: 'en' },
    ]);
    expect(db.prepare('select person_id from memberships').pluck().all()).toEqual(['a', 'b']);
    expect(db.prepare('select id from session').pluck().all()).toEqual(['s']);
    expect(db.prepare('select made_at from registers').pluck().all()).toEqual([7]);
    expect(versionOf(db)).toBe(NOW + 2);
    db.close();
    expect(isBehind(folder, { migrations: REBUILDS })).toBe(false);
  });

  it('copies what was there first, named by its version, and keeps the newest copy', () => {
    const folder = made();
    const before = dump(folder);
    upgrade(folder, { migrations: REBUILDS.slice(0, -1) });
    expect(names(folder)).toEqual([`tolvek-version-${NOW}.sqlite`]);
    const copy = new Sqlite(join(folder, names(folder)[0] ?? ''));
    expect(versionOf(copy)).toBe(NOW);
    expect(copy.prepare('select name from people').pluck().all()).toEqual(['Ada', 'Bo']);
    copy.close();
    expect(dump(folder)).not.toBe(before);
    upgrade(folder, { migrations: REBUILDS });
    expect(names(folder)).toEqual([`tolvek-version-${NOW + 1}.sqlite`]);
  });

  it('takes up where an installation was before versions were written down', () => {
    const folder = made();
    const db = opened(folder);
    db.pragma('user_version = 0');
    expect(versionOf(db)).toBe(NOW);
    db.close();
    upgrade(folder, { migrations: EARLY });
    expect(names(folder)).toEqual([]);
    const after = opened(folder);
    expect(after.pragma('user_version', { simple: true })).toBe(NOW);
    after.close();
  });

  it('refuses data of a newer release, and leaves it as it is', () => {
    const folder = made();
    upgrade(folder, { migrations: REBUILDS });
    const before = dump(folder);
    expect(() => upgrade(folder, { migrations: EARLY })).toThrow(
      /newer release[\s\S]*have version \d+, and this release knows version \d+/,
    );
    expect(dump(folder)).toBe(before);
  });

  it('refuses a disk without room, saying how much it takes, and changes nothing', () => {
    const folder = made();
    const before = dump(folder);
    expect(() => upgrade(folder, { migrations: REBUILDS, free: () => 100_000 })).toThrow(
      /Needed: [\d.]+ MB. Free: 100 kB/,
    );
    expect([dump(folder), names(folder)]).toEqual([before, []]);
  });

  it('takes all back where a row would point to nothing', () => {
    const folder = made();
    const before = dump(folder);
    const loose = { name: 'loose', when: 3, hash: 'loose', statements: ["delete from people where id = 'b'"] };
    expect(() => upgrade(folder, { migrations: [...REBUILDS, loose] })).toThrow(
      '1 row would point to nothing, in memberships to people',
    );
    expect(dump(folder)).toBe(before);
  });

  const STEPS = ['copy', 'rebuilt', 'column', 'check', 'commit', 'done'];
  it.each(STEPS)('killed at “%s” and started again ends the same', (step) => {
    const [killed, whole] = [made(), made()];
    upgrade(whole, { migrations: REBUILDS });
    const run = (at: string) =>
      spawnSync(process.execPath, [join(import.meta.dirname, '../../../built/killed.mjs'), killed, at, 'rebuilds']);
    expect(run(step).signal).toBe('SIGKILL');
    expect(run('never').status).toBe(0);
    expect(dump(killed)).toBe(dump(whole));
    expect(names(killed)).toEqual(names(whole));
  });

  it('takes every step that it can be killed at', () => {
    const steps: string[] = [];
    upgrade(made(), { migrations: REBUILDS, onStep: (name) => steps.push(name) });
    expect(steps).toEqual(STEPS);
  });
});
