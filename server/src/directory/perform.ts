import { DirectoryRefusal, patched, type Resource, takeResource, writtenOf } from '@tolvek/core/directory';
import { said } from '@tolvek/words';
import { refuseNobodyLeft } from '../people/given.ts';
import type { Work } from '../platform/work.ts';
import { type Store, sentOn, versionOf, withVersion } from './stores.ts';

/** A change that a directory asks for. */
export interface Change {
  readonly method: 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly store: Store;
  /** Empty for what is to be added. */
  readonly id: string;
  readonly sent: unknown;
  /** The versions it is for; null for any. */
  readonly ifMatch: string | null;
}

/** What came of a change. */
export interface Changed {
  readonly id: string;
  /** Null when it is gone. */
  readonly resource: Resource | null;
  /** Who can’t come in any more, by id. */
  readonly keptOut: string | null;
}

const stale = (): DirectoryRefusal => new DirectoryRefusal(412, null, said('scim:stale'));
export const notThere = (id: string): DirectoryRefusal =>
  new DirectoryRefusal(404, null, said('scim:notThere', { id }));

/** Whether one of the versions that were asked for is this one (RFC 9110 §13.1): compared weakly, as they are weak. */
export const isAmong = (versions: string, resource: Resource): boolean => {
  const opaque = (tag: string): string => tag.trim().replace(/^W\//, '');
  return versions.split(',').some((tag) => tag.trim() === '*' || opaque(tag) === opaque(versionOf(resource)));
};

/** Whether somebody is no longer in a group. */
function loses({ members }: Resource, after: Resource | null): boolean {
  const left = new Set(((after?.members ?? []) as readonly Resource[]).map(({ value }) => value));
  return ((members ?? []) as readonly Resource[]).some(({ value }) => !left.has(value ?? null));
}

/**
 * Does what a directory asks for, all of it or nothing.
 *
 * @param base the address that resources are found under
 * @throws DirectoryRefusal, and Problem where the desk refuses: 409 when nobody could give rights any more
 */
export function perform(work: Work, base: string, { method, store, id, sent, ifMatch }: Change): Changed {
  const { tx } = work;
  const { type } = store;
  const read = (of: string): Resource | null => {
    const resource = store.byId(tx, base, of);
    return resource ? withVersion(resource) : null;
  };
  if (method === 'POST') {
    const made = store.add(work, takeResource(type, sent));
    return { id: made, resource: read(made), keptOut: null };
  }
  const before = store.byId(tx, base, id);
  if (!before) throw notThere(id);
  if (ifMatch !== null && !isAmong(ifMatch, before)) throw stale();
  if (method === 'DELETE') store.remove(work, id, before);
  else {
    const had = writtenOf(type, before);
    const wanted = method === 'PUT' ? sentOn(store, takeResource(type, sent), before) : patched(type, had, sent);
    store.put(work, id, wanted, had);
  }
  const after = read(id);
  if (method === 'DELETE' || loses(before, after)) refuseNobodyLeft(tx);
  const isOut = type.name === 'User' && (method === 'DELETE' || (before.active === true && after?.active === false));
  return { id, resource: after, keptOut: isOut ? id : null };
}
