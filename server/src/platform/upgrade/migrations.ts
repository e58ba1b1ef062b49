import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type Sqlite from 'better-sqlite3';
import { STEPS } from './steps/index.ts';

/** One step of the tables from release to release. */
export interface Migration {
  readonly name: string;
  readonly statements: readonly string[];
  /** What SQL can’t do, after its statements: by types that are frozen beside it. */
  readonly step?: (db: Sqlite.Database) => void;
  /** As the migrations that were done are written down. */
  readonly hash: string;
  readonly when: number;
}

const FOLDER = new URL('../../../migrations/', import.meta.url);
interface Journal {
  readonly entries: readonly { readonly tag: string; readonly when: number }[];
}

/** All there are, in their order: the version of a database is how many of them were done. */
export function allMigrations(): readonly Migration[] {
  const journal = JSON.parse(readFileSync(new URL('meta/_journal.json', FOLDER), 'utf8')) as Journal;
  return journal.entries.map(({ tag, when }) => {
    const text = readFileSync(new URL(`${tag}.sql`, FOLDER), 'utf8');
    const statements = text
      .split('--> statement-breakpoint')
      .map((each) => each.trim())
      .filter(Boolean);
    const step = STEPS[tag];
    return {
      name: tag,
      statements,
      when,
      hash: createHash('sha256').update(text).digest('hex'),
      ...(step ? { step } : {}),
    };
  });
}
