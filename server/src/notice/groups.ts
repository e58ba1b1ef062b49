import { enoughFor, type GroupCount, type GroupValue, groupsIn, isCrossed, type OfGroup } from '@tolvek/core/notice';
import { mayWith, rightsAt, type Viewer } from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { and, ne, type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { holdsThings, type RegisterRow, registerById } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { type Picked, pickedBy } from '../request/facts.ts';
import type { ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { asking, fieldsRead, type ReadyNotice } from './ready.ts';

/** So many of a group are looked at to count those that are meant. */
const LOOKED_AT = 2_000;

/** A notice about a group of requests. */
export type GroupNotice = ReadyNotice & { readonly rule: ReadyNotice['rule'] & { readonly on: OfGroup } };

export const isOfGroup = (notice: ReadyNotice): notice is GroupNotice => notice.rule.on.is === 'group';

/** What the requests of a register are counted among: unfinished ones, or all things. */
const amongOf = (register: RegisterRow) => (holdsThings(register) ? 'all' : 'unfinished');

/** The groups that something counts in, at a moment (epoch ms): none where its condition does not hold, or it is over. */
export function groupsAt(
  db: Reader,
  request: ShownRow,
  { rule, applies, fields }: GroupNotice,
  now: number,
  picked?: Picked,
): readonly GroupValue[] {
  const among = amongOf(registerById(db, request.registerId));
  if (request.trial || (among === 'unfinished' && request.phase === 'finished')) return [];
  const groups = groupsIn(request.values, rule.on.by);
  return groups.length > 0 && asking(db, request, fields, now, picked)(applies) ? groups : [];
}

/** Those that may be in a group, by what is stored. */
function inGroup(by: string | null, group: GroupValue): SQL | undefined {
  if (by === null || group === null) return undefined;
  // SQLite has no yes and no of its own.
  const stored = typeof group === 'boolean' ? Number(group) : group;
  const path = `$."${by}"`;
  // One value at a place, or each of several.
  return sql`exists (select 1 from json_each(${requests.values}, ${path}) where value = ${stored})`;
}

/** How many a group has, as far as that makes a difference. `but`: one that is not counted, by its id. */
export function countIn(
  db: Reader,
  { rule: { on }, applies, fields }: GroupNotice,
  group: GroupValue,
  { registerId, now, but }: { readonly registerId: string; readonly now: number; readonly but?: string },
): number {
  const register = registerById(db, registerId);
  const picked = pickedBy(db, register.fields);
  const those = and(
    countedIn(registerId, amongOf(register)),
    but === undefined ? undefined : ne(requests.id, but),
    inGroup(on.by, group),
  );
  let count = 0;
  let looked = 0;
  for (const request of eachRequest(db, those)) {
    if (asking(db, request, fields, now, picked)(applies)) count += 1;
    looked += 1;
    if (count >= enoughFor(on) || looked >= LOOKED_AT) return count;
  }
  return count;
}

/** The groups of a notice that one change made too small or too large, with how many they have now: asked before it, and after it. */
export function crossedBy(
  db: Reader,
  notice: GroupNotice,
  before: ShownRow | null,
  after: ShownRow,
  now: number,
): readonly GroupCount[] {
  const was = before ? groupsAt(db, before, notice, now) : [];
  const is = groupsAt(db, after, notice, now);
  return [...new Set([...was, ...is])].flatMap((value) => {
    const [had, has] = [Number(was.includes(value)), Number(is.includes(value))];
    if (had === has) return [];
    const others = countIn(db, notice, value, { registerId: after.registerId, now, but: after.id });
    return isCrossed(notice.rule.on, others + had, others + has) ? [{ value, count: others + has }] : [];
  });
}

/**
 * Whether somebody may know how many a group has: whoever may read all requests of the register, and all that it is counted
 * by on each of them. Else the number would tell of what is hidden.
 */
export function mayCount(
  db: Reader,
  viewer: Viewer,
  registerId: string,
  notice: ReadyNotice['rule'],
  fields: readonly Field[],
): boolean {
  const register = registerById(db, registerId);
  const isOfDesk = register.deskGroups.some((group) => viewer.groups.includes(group));
  if (!mayWith({ rights: rightsAt(viewer, register.id) }, 'read', isOfDesk ? 'team' : 'none')) return false;
  const names = fieldsRead(notice, fields);
  return askableOf(db, viewer, register, names).isAll;
}
