import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { keepFolder, keepReading } from './archive.ts';
import { gapsIn } from './covered.ts';
import { play } from './play.ts';
import { readFolder } from './read.ts';

/**
 * Makes the data of a release and writes down what everybody reads of it. Run once for a release,
 * with its name, by the code of that release: `node --import tsx e2e/carried/record.ts 0.1.0`.
 */
async function record(release: string): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'tolvek-played-'));
  await play(folder);
  const db = new Sqlite(join(folder, 'tolvek.sqlite'));
  // As a kill in the middle of a letter leaves it.
  db.exec("update outbox set state = 'sending' where id = (select min(id) from outbox where state = 'waiting')");
  const gaps = gapsIn(db);
  if (gaps.length > 0) throw new Error(`Not played: ${gaps.join('; ')}`);
  db.exec('vacuum');
  db.close();
  console.log(`folder ${keepFolder(folder, release)} bytes`);
  const copy = mkdtempSync(join(tmpdir(), 'tolvek-read-'));
  cpSync(folder, copy, { recursive: true });
  const reading = await readFolder(copy, null);
  console.log(
    `reading ${keepReading(reading, release)} bytes, ${reading.reads.length} reads, ${reading.goesOn.length} calls after`,
  );
}

record(process.argv[2] ?? '').then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error);
    process.exit(1);
  },
);
