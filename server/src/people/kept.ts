import { type RefusalName, refused, said, type Words } from '@tolvek/words';
import type { Reader } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { type PersonRow, personNamed } from './queries.ts';

/** Who does what a directory sets, in the history. */
export const DIRECTORY = 'directory';

/** Who set something, in words: somebody, or the directory; empty for the application itself. */
export const setterIn = (db: Reader, by: string): Words =>
  by === DIRECTORY ? said('directory:theDirectory') : personNamed(db, by);

/** What of somebody a directory keeps: their name, their address, and the fields of profiles that it fills in. */
export function keptOf(db: Reader, { source }: Pick<PersonRow, 'source'>): ReadonlySet<string> {
  if (source === 'local') return NOTHING;
  const filled = profileDesignOf(db).fields.filter(({ directory }) => directory !== undefined);
  return new Set(['name', 'email', ...filled.map(({ key }) => `profile.${key}`)]);
}

const NOTHING: ReadonlySet<string> = new Set();

/**
 * What a directory keeps is changed there: else it would differ until the directory speaks of it again.
 *
 * @throws Problem 409 for anybody but the directory, and where the rule of a group keeps it
 */
export function refuseKept(
  { actor }: Work,
  { source }: { readonly source: 'local' | 'directory' | 'rule' },
  why: Extract<RefusalName, `keptByDirectory${string}`> = 'keptByDirectory',
): void {
  if (source === 'directory' && actor !== DIRECTORY) throw new Problem(409, 'kept-by-directory', refused(why));
  if (source === 'rule') throw new Problem(409, 'kept-by-rule', refused('keptByRule'));
}
