import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { expect, test } from 'vitest';
import { designText } from './designText.ts';

interface Design {
  readonly title: string;
  readonly parts: readonly { readonly key: string }[];
}
const designs = sqliteTable('designs', { id: text().primaryKey(), design: designText<Design>().notNull() });

test('the same text is the same object, frozen throughout; another text is another, whoever stored it', () => {
  const client = new Sqlite(':memory:');
  client.exec('create table designs (id text primary key, design text not null)');
  const db = drizzle(client);
  const design: Design = { title: 'Dive', parts: [{ key: 'depth' }] };
  db.insert(designs).values({ id: 'a', design }).run();
  client.prepare('insert into designs values (?, ?)').run('b', JSON.stringify(design));
  const read = () =>
    db
      .select()
      .from(designs)
      .orderBy(designs.id)
      .all()
      .map((row) => row.design);
  const [a, b] = read();
  expect(a).toEqual(design);
  expect(b).toBe(a);
  expect(read()[0]).toBe(a);
  expect(Object.isFrozen(a?.parts[0])).toBe(true);
  expect(() => ((a as { title: string }).title = 'Other')).toThrow(TypeError);
  client.prepare('update designs set design = ? where id = ?').run('{"title":"Other","parts":[]}', 'b');
  expect(read()[1]).toEqual({ title: 'Other', parts: [] });
  expect(read()[0]).toBe(a);
  client.close();
});
