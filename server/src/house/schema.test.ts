import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { getTableName, is } from 'drizzle-orm';
import { CasingCache } from 'drizzle-orm/casing';
import { getTableConfig, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { afterAll, describe, expect, it } from 'vitest';
import { upgrade } from '../platform/upgrade/index.ts';
import * as schema from './schema.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-schema-'));
upgrade(folder);
const db = new Sqlite(join(folder, 'tolvek.sqlite'));
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true });
});

const casing = new CasingCache('snake_case');
const tables: readonly SQLiteTable[] = Object.values(schema).filter((each) => is(each, SQLiteTable));

/** What the migrations make and what the tables in code say are two descriptions of the same. */
describe('the tables that the migrations make', () => {
  // What FTS5 keeps is its own affair, but for that it is there.
  it('has the index of what is found by words', () => {
    const made = db.prepare("select name from sqlite_master where name in ('found', 'found_words')").pluck();
    expect((made.all() as string[]).sort()).toEqual(['found', 'found_words']);
  });

  it('are those in code, and no other', () => {
    const made = db
      .prepare(
        "select name from sqlite_master where type = 'table' and name not like 'sqlite_%' and name not glob 'found*'",
      )
      .pluck();
    const names = tables.map((table) => getTableName(table)).sort();
    expect((made.all() as string[]).filter((name) => name !== '__drizzle_migrations').sort()).toEqual(names);
    expect(names.length).toBeGreaterThan(25);
  });

  it.each(tables.map((table) => [getTableName(table), table] as const))(
    '%s: columns, keys, indexes, references',
    (name, table) => {
      const config = getTableConfig(table);
      const column = (each: (typeof config.columns)[number]): string => casing.getColumnCasing(each);
      const info = db.pragma(`table_info("${name}")`) as { name: string; type: string; notnull: number; pk: number }[];
      expect(info.map((each) => `${each.name} ${each.type.toLowerCase()} ${each.notnull}`).sort()).toEqual(
        config.columns.map((each) => `${column(each)} ${each.getSQLType()} ${each.notNull ? 1 : 0}`).sort(),
      );
      const keys = config.primaryKeys[0]?.columns ?? config.columns.filter((each) => each.primary);
      expect(
        info
          .filter((each) => each.pk > 0)
          .map((each) => each.name)
          .sort(),
      ).toEqual(keys.map(column).sort());
      const indexes = (db.pragma(`index_list("${name}")`) as { name: string; origin: string }[])
        .filter((each) => each.origin === 'c')
        .map((each) => each.name);
      const unique = config.columns.filter((each) => each.isUnique).map((each) => each.uniqueName ?? '');
      expect(indexes.sort()).toEqual([...config.indexes.map((each) => each.config.name), ...unique].sort());
      const references = db.pragma(`foreign_key_list("${name}")`) as { from: string; table: string; to: string }[];
      expect(references.map((each) => `${each.from} ${each.table}.${each.to}`).sort()).toEqual(
        config.foreignKeys
          .map((each) => each.reference())
          .map(({ columns: [from], foreignColumns: [to] }) => {
            if (!from || !to) throw new Error('A reference names a column on either side.');
            return `${column(from)} ${getTableName(to.table)}.${column(to)}`;
          })
          .sort(),
      );
    },
  );
});
