import { freshKey } from '@tolvek/core/form';
import { isSame } from '@tolvek/core/own';
import { type Audience, asEntries, circleBy, type GroundField, type GroundMember, holdsOn } from '@tolvek/core/people';
import { isMailAddress } from '@tolvek/core/register';
import { refused, said } from '@tolvek/words';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { notFound, Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { type EntryRow, entryOf, nestedEntries } from './entries.ts';
import { noteChanged, noteGround } from './history.ts';
import { refuseKept } from './kept.ts';
import { groupNames, personById } from './queries.ts';
import { endRule, ruleEntries, settleRules } from './rules.ts';
import { settleGroup, settleNesting, settlePerson, todayAt } from './settle.ts';
import { groupEntries, groups } from './tables.ts';

export type GroupRow = typeof groups.$inferSelect;

export const groupByKey = (db: Reader, key: string): GroupRow | undefined =>
  db.select().from(groups).where(eq(groups.key, key)).get();

/** @throws Problem 422 when the name is empty or another group has it. */
function refuseName(tx: Transaction, name: string, own: string | null): void {
  const same = tx
    .select({ key: groups.key })
    .from(groups)
    .where(and(sql`lower(${groups.name}) = ${name.toLowerCase()}`, isNull(groups.removedAt)))
    .all()
    .some(({ key }) => key !== own);
  if (name === '') throw wrongFields([{ field: 'name', message: said('start:noName'), fix: said('start:writeName') }]);
  if (same)
    throw wrongFields([{ field: 'name', message: said('ground:groupNameTaken'), fix: said('ground:otherName') }]);
}

/**
 * Makes a group, by a key from its name where none is given. Returns the key.
 *
 * @throws Problem 422 when the name is empty or another group has it.
 */
export function makeGroup(
  work: Work,
  {
    name,
    about = '',
    isTeam,
    key,
  }: { readonly name: string; readonly about?: string; readonly isTeam: boolean; readonly key?: string },
): string {
  const { tx } = work;
  refuseName(tx, name.trim(), null);
  const made = key ?? freshKey(name, new Set(groupNames(tx).keys()));
  tx.insert(groups).values({ key: made, name: name.trim(), about: about.trim(), isTeam }).run();
  noteGround(work, 'group', made, { kind: 'added' });
  return made;
}

export interface GroupChanges {
  readonly name?: string;
  readonly about?: string;
  /** Where its members get together what goes to the group; empty: each gets theirs. */
  readonly mailbox?: string;
  readonly isTeam?: boolean;
  readonly retired?: boolean;
  /** Whom it holds by rule; null for nobody. */
  readonly rule?: Audience | null;
}

/**
 * Changes what a group is called and is for, and whether it is offered any more. Returns the next
 * version.
 *
 * @throws Problem 404, 412 when somebody was faster, 422 when the name is empty or another group has it.
 */
export function changeGroup(
  work: Work,
  { key, version, changes }: { readonly key: string; readonly version: number; readonly changes: GroupChanges },
): number {
  const { tx } = work;
  const group = groupByKey(tx, key);
  if (!group) throw notFound('group');
  if (group.version !== version) throw staleVersion();
  const { rule = group.rule, ...settings } = changes;
  const changed = (Object.keys(settings) as (keyof typeof settings & GroundField)[]).filter(
    (field) => settings[field] !== undefined && settings[field] !== group[field],
  );
  const isRuledAnew = !isSame(rule, group.rule);
  if (changed.length === 0 && !isRuledAnew) return version;
  if (changed.includes('name') || changed.includes('retired') || isRuledAnew)
    refuseKept(work, group, 'keptByDirectoryGroup');
  if (settings.name !== undefined) refuseName(tx, settings.name.trim(), key);
  if (settings.mailbox && !isMailAddress(settings.mailbox))
    throw wrongFields([
      {
        field: 'mailbox',
        message: said('answers:notAnEmail', { typed: settings.mailbox }),
        fix: said('answers:likeEmail'),
      },
    ]);
  tx.update(groups)
    .set({ ...settings, rule, version: version + 1 })
    .where(eq(groups.key, key))
    .run();
  for (const field of changed) noteChanged(work, 'group', key, field, group[field], settings[field] ?? '');
  if (isRuledAnew) ruleAnew(work, key, { before: group.rule, after: rule });
  return version + 1;
}

/** Lets those in whom the rule of a group means from now on, and the others out. @throws Problem 409 for a circle */
function ruleAnew(
  work: Work,
  key: string,
  { before, after }: { readonly before: Audience | null; readonly after: Audience | null },
): void {
  for (const { member } of after ? asEntries({ key, rule: after }) : [])
    if ('group' in member) refuseCircle(work.tx, member.group, key);
  noteGround(work, 'group', key, { kind: 'ruled', before, after });
  if (after === null) endRule(work, key);
  else settleRules(work, 'all');
}

/** Deletes a group: it stands in no list any more, and only names what names it. */
export function removeGroup(work: Work, key: string): void {
  work.tx.update(groups).set({ retired: true, removedAt: work.now }).where(eq(groups.key, key)).run();
  noteGround(work, 'group', key, { kind: 'removed' });
}

export interface NewEntry {
  readonly group: string;
  readonly member: GroundMember;
  readonly from: string | null;
  readonly until: string | null;
}

/**
 * Lets a person or a group into a group. Returns the id of the entry; of the one there is, where the
 * same was said already.
 *
 * @throws Problem 404, 409 when the groups would hold each other in a circle, 422 when it would end
 *   before it begins.
 */
export function enterGroup(
  work: Work,
  { group, member, from, until }: NewEntry,
  source: EntryRow['source'] = 'local',
): string {
  const { tx, now } = work;
  if (!groupByKey(tx, group)) throw notFound('group');
  if ('person' in member ? !personById(tx, member.person) : !groupByKey(tx, member.group)) throw notFound('member');
  if (from !== null && until !== null && until < from)
    throw wrongFields([{ field: 'until', message: said('absences:endsBefore'), fix: said('absences:laterEnd') }]);
  if ('group' in member) refuseCircle(tx, member.group, group);
  const row = {
    ...{ groupKey: group, fromDay: from, untilDay: until, source },
    ...{ personId: 'person' in member ? member.person : null, memberGroup: 'group' in member ? member.group : null },
  };
  const same = tx
    .select({ id: groupEntries.id })
    .from(groupEntries)
    .where(
      sql`group_key = ${group} and person_id is ${row.personId} and member_group is ${row.memberGroup} and from_day is ${from} and until_day is ${until}`,
    )
    .get();
  if (same) return same.id;
  const id = newId();
  tx.insert(groupEntries)
    .values({ id, ...row })
    .run();
  const day = todayAt(tx, now);
  if (row.personId !== null) settlePerson(tx, row.personId, day);
  else if ('group' in member && holdsOn({ from, until }, day)) settleNesting(tx, member.group, group, day);
  noteEntry(work, 'entered', { group, member, from, until });
  settleRules(work, row.personId === null ? 'all' : [row.personId]);
  return id;
}

/** @throws Problem 409 where groups would hold, or ask about, each other in a circle */
function refuseCircle(tx: Transaction, inner: string, outer: string): void {
  const circle = circleBy([...nestedEntries(tx), ...ruleEntries(tx)], inner, outer);
  if (circle.length === 0) return;
  const names = groupNames(tx);
  const groupsInIt = circle.map((key) => names.get(key) ?? key);
  throw new Problem(409, 'circle', refused('groupCircle', { groups: groupsInIt }));
}

/** What changed is read on both sides: of a person, and of the groups. */
function noteEntry(work: Work, kind: 'entered' | 'left', entry: NewEntry): void {
  const change = { kind, ...entry };
  noteGround(work, 'group', entry.group, change);
  if ('person' in entry.member) noteGround(work, 'person', entry.member.person, change);
  else noteGround(work, 'group', entry.member.group, change);
}

function settleEntry(
  tx: Transaction,
  { groupKey, personId }: Pick<EntryRow, 'groupKey' | 'personId'>,
  day: string,
): void {
  if (personId !== null) settlePerson(tx, personId, day);
  else settleGroup(tx, groupKey, day);
}

/** Ends a way into a group, at once. @throws Problem 404 */
export function leaveGroup(work: Work, group: string, entryId: string): void {
  const { tx, now } = work;
  const row = tx.select().from(groupEntries).where(eq(groupEntries.id, entryId)).get();
  if (row?.groupKey !== group) throw notFound('member');
  refuseKept(work, row, 'keptByDirectoryGroup');
  tx.delete(groupEntries).where(eq(groupEntries.id, entryId)).run();
  settleEntry(tx, row, todayAt(tx, now));
  const { from, until, member } = entryOf(row);
  noteEntry(work, 'left', { group, member, from, until });
  settleRules(work, row.personId === null ? 'all' : [row.personId]);
}
