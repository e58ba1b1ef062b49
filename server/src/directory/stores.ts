import { createHash } from 'node:crypto';
import { GROUP, type Resource, type ResourceType, USER, writtenOf } from '@tolvek/core/directory';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import type { Work } from '../platform/work.ts';
import {
  addDirectoryGroup,
  countGroups,
  groupResource,
  groupsAfter,
  groupsAt,
  groupsWith,
  putDirectoryGroup,
  removeDirectoryGroup,
} from './groups.ts';
import { type Filled, prepareFilling } from './profiles.ts';
import { addUser, countUsers, putUser, removeUser, userById, usersAfter, usersAt, usersWith } from './users.ts';

/** Where resources of one kind are read, and set; the same for all kinds. */
export interface Store {
  readonly type: ResourceType;
  readonly byId: (db: Reader, base: string, id: string) => Resource | undefined;
  readonly after: (db: Reader, base: string, id: string, most: number) => readonly Resource[];
  readonly at: (db: Reader, base: string, place: number, most: number) => readonly Resource[];
  readonly count: (db: Reader) => number;
  readonly having: (db: Reader, base: string, certain: ReadonlyMap<string, string>) => readonly Resource[] | null;
  readonly add: (work: Work, sent: Resource) => string;
  readonly put: (work: Work, id: string, sent: Resource, before: Resource) => void;
  readonly remove: (work: Work, id: string, before: Resource) => void;
}

const fillings = new WeakMap<Work, (user: Resource) => Filled>();

/** What reads profiles is made ready once for all that one write does. */
function fillingOf(work: Work): (user: Resource) => Filled {
  const made = fillings.get(work) ?? prepareFilling(work);
  fillings.set(work, made);
  return made;
}

export const STORES: readonly Store[] = [
  {
    ...{ type: USER, byId: userById, after: usersAfter, at: usersAt, count: countUsers, having: usersWith },
    add: (work, sent) => addUser(work, sent, fillingOf(work)),
    put: (work, id, sent, before) => putUser(work, id, sent, before, fillingOf(work)),
    remove: removeUser,
  },
  {
    ...{ type: GROUP, byId: groupResource, after: groupsAfter, at: groupsAt, count: countGroups, having: groupsWith },
    ...{ add: addDirectoryGroup, put: putDirectoryGroup, remove: removeDirectoryGroup },
  },
];

/** The version of a resource (RFC 7644 §3.14): another one whenever something of it is. */
export function versionOf(resource: Resource): string {
  const { meta: _meta, ...content } = resource;
  return `W/"${createHash('sha256').update(canonicalJson(content)).digest('base64url').slice(0, 22)}"`;
}

/** A resource with its version, as it is answered. */
export const withVersion = (resource: Resource): Resource => ({
  ...resource,
  meta: { ...(resource.meta as Resource), version: versionOf(resource) },
});

/** What was sent on what is there; what is only read is not among it. */
export const sentOn = (store: Store, sent: Resource, before: Resource): Resource => ({
  // Whether somebody may come in is not settled by saying nothing of it.
  ...('active' in before ? { active: before.active as boolean } : {}),
  ...writtenOf(store.type, sent),
});
