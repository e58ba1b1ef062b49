import Sqlite from 'better-sqlite3';

/**
 * Copies finished requests within a database until there are so many; each copy is a request of its
 * own. A desk’s past grows with the years, what is open on it does not.
 */
export function grown(path: string, wanted: number): void {
  const db = new Sqlite(path);
  // Nothing of it has to survive: it is made for this run.
  db.pragma('journal_mode = OFF');
  db.pragma('synchronous = OFF');
  db.pragma('cache_size = -2000000');
  const names = (db.prepare('pragma table_info(requests)').all() as { name: string }[]).map((each) => each.name);
  const listed = names.map((name) => `"${name}"`).join(', ');
  const held = (): number => (db.prepare('select count(*) as n from requests').get() as { n: number }).n;
  for (let have = held(), turn = 0; have < wanted; have = held(), turn += 1) {
    const taken = names.map((name) => {
      if (name === 'id' || name === 'number') return `"${name}" || '-${turn}'`;
      // Spread over time as requests are, so that indexes have something to order.
      return name === 'created_at' || name === 'due'
        ? `"${name}" - ${(turn + 1) * 1_000} - abs(random() % 100000000)`
        : `"${name}"`;
    });
    db.prepare(
      `insert into requests (${listed}) select ${taken.join(', ')} from requests where phase = 'finished' limit ?`,
    ).run(wanted - have);
  }
  db.pragma('journal_mode = WAL');
  db.close();
}
