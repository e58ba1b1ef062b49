import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { said } from '@tolvek/words';
import Sqlite from 'better-sqlite3';
import { CannotStart, spokenHere } from './cannotStart.ts';

/** Thrown when another process works on the data folder. */
export class FolderInUse extends CannotStart {}

/**
 * Holds a data folder for this process alone. The lock is an open exclusive transaction on a
 * database of its own: the system gives it up with the process, however that ends, so a kill leaves
 * nothing behind that would have to be cleaned away. Returns what lets it go.
 *
 * @throws FolderInUse naming the process that has the folder.
 */
export function holdFolder(folder: string): () => void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const lock = new Sqlite(join(folder, 'lock.sqlite'), { timeout: 0 });
  const holder = join(folder, 'lock.txt');
  try {
    // The transaction has to write, or a new file would not be locked at all.
    lock.exec('begin exclusive; create table if not exists holder (pid integer)');
  } catch (error) {
    lock.close();
    if (!(error instanceof Sqlite.SqliteError) || !error.code.startsWith('SQLITE_BUSY')) throw error;
    const who = existsSync(holder) ? readFileSync(holder, 'utf8').trim() : said('commands:anotherProcess');
    throw new FolderInUse(said('commands:folderInUse', { folder, who }));
  }
  const words = spokenHere(said('commands:process', { pid: String(process.pid), at: new Date().toISOString() }));
  writeFileSync(holder, words, { mode: 0o600 });
  return () => lock.close();
}
