import type Sqlite from 'better-sqlite3';

const TYPED_AS: Readonly<Record<string, string>> = { ß: 'ss', ø: 'o', æ: 'ae', œ: 'oe', ł: 'l', đ: 'd' };

const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[ßøæœłđ]/g, (letter) => TYPED_AS[letter] ?? letter);

/** What people are looked for by: their names and all their addresses, in plain letters. */
export function peopleAreSought(db: Sqlite.Database): void {
  const found = new Map<string, string[]>();
  const all = db.prepare('select person_id as id, address from addresses order by address').all();
  for (const { id, address } of all as { id: string; address: string }[])
    found.set(id, [...(found.get(id) ?? []), address]);
  const set = db.prepare('update people set sought = ? where id = ?');
  for (const { id, name } of db.prepare('select id, name from people').all() as { id: string; name: string }[])
    set.run(plain([name, ...(found.get(id) ?? [])].join('\n')), id);
}
