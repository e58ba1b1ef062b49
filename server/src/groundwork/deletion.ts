import type { AnswerOf, ParamsOf } from '@tolvek/contract';
import { CALENDAR } from '@tolvek/core/deadline';
import type { DesignKind } from '@tolvek/core/design';
import { DOOR } from '@tolvek/core/door';
import { FORM, REGISTER } from '@tolvek/core/form';
import { MAILING } from '@tolvek/core/mailing';
import { may, type Viewer } from '@tolvek/core/people';
import { VOCABULARY } from '@tolvek/core/register';
import { ROSTER } from '@tolvek/core/roster';
import { refused, said, type Words } from '@tolvek/words';
import { and, count, eq, ne, sql } from 'drizzle-orm';
import { seats } from '../approval/tables.ts';
import { deleteDesign } from '../design/commands.ts';
import { designByKey, designsOf, statesOf } from '../design/queries.ts';
import { grantedTo, refuseNobodyLeft } from '../people/given.ts';
import { refuseRaising, rightMissing, takeAllRights } from '../people/grants.ts';
import { changeGroup, groupByKey, leaveGroup, removeGroup } from '../people/groups.ts';
import { noteGround } from '../people/history.ts';
import { rulesNaming } from '../people/rules.ts';
import { groupEntries } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { requests } from '../request/tables.ts';
import { forgetRoster } from '../roster/commands.ts';
import { rosterByKey } from '../roster/queries.ts';
import { deskOf } from '../settings/queries.ts';

type Kind = ParamsOf<'groundDeletion'>['kind'];
type Use = AnswerOf<'groundDeletion'>['uses'][number];

/** Where something that can be deleted stands, and who may delete it. */
const RIGHT = { group: 'people', calendar: 'groundwork', roster: 'groundwork', vocabulary: 'groundwork' } as const;

/** Something of the ground that is a design. */
const designNamed = (db: Reader, kind: Exclude<Kind, 'group'>, key: string) =>
  kind === 'calendar'
    ? designByKey(db, CALENDAR, key)
    : kind === 'roster'
      ? rosterByKey(db, key)
      : designByKey(db, VOCABULARY, key);

/** What names something: in drafts, and in every state that was in force, as requests of then are read by those. */
function namedBy<Content extends object>(
  db: Reader,
  kind: Pick<DesignKind<Content>, 'kind' | 'titleOf' | 'refersTo'>,
  to: { readonly kind: string; readonly key: string },
): readonly Use[] {
  const names = (content: Content): boolean =>
    kind.refersTo(content).some((each) => each.kind === to.kind && each.key === to.key);
  return designsOf(db, kind).flatMap((design): Use[] => {
    const title = kind.titleOf(design.draft);
    if (names(design.draft)) return [{ title, at: said('ground:namesIt') }];
    return statesOf<Content>(db, design).some(({ content }) => names(content))
      ? [{ title, at: said('ground:namedIt') }]
      : [];
  });
}

/** What keeps something from being deleted. */
function usesOf(db: Reader, kind: Kind, key: string): readonly Use[] {
  const to = { kind, key };
  const designs = [
    ...namedBy(db, FORM, to),
    ...namedBy(db, REGISTER, to),
    ...namedBy(db, DOOR, to),
    ...namedBy(db, MAILING, to),
    ...namedBy(db, ROSTER, to),
  ];
  if (kind === 'calendar' && deskOf(db).calendar === key)
    return [...designs, { title: said('ground:desk'), at: said('ground:namesIt') }];
  if (kind !== 'group') return designs;
  const rules = rulesNaming(db, to).map(({ name }) => ({ title: name, at: said('ground:itsRule') }));
  return [...designs, ...rules, ...workOf(db, key)];
}

/** Requests that a group works or decides on. */
function workOf(db: Reader, key: string): readonly Use[] {
  const works = and(eq(requests.team, key), ne(requests.phase, 'finished'));
  const open = db.select({ n: count() }).from(requests).where(works).get()?.n ?? 0;
  const asked = and(eq(seats.holder, key), sql`${seats.state} in ('open', 'ahead')`);
  const waiting = db.select({ n: count() }).from(seats).where(asked).get()?.n ?? 0;
  return [
    ...(open > 0 ? [{ title: said('ground:openRequests'), at: said('ground:requestsOf', { count: open }) }] : []),
    ...(waiting > 0
      ? [{ title: said('ground:openApprovals'), at: said('ground:requestsOf', { count: waiting }) }]
      : []),
  ];
}

/** What goes with something that is deleted. */
function goesWith(db: Reader, kind: Kind, key: string): readonly Words[] {
  if (kind !== 'group') return [said(`ground:goes.${kind}`)];
  const countOf = (column: 'groupKey' | 'memberGroup'): number =>
    db.select({ n: count() }).from(groupEntries).where(eq(groupEntries[column], key)).get()?.n ?? 0;
  const [members, groups, rights] = [countOf('groupKey'), countOf('memberGroup'), grantedTo(db, key).length];
  return [
    said('ground:goes.group'),
    ...(members > 0 ? [said('ground:goes.members', { count: members })] : []),
    ...(groups > 0 ? [said('ground:goes.groups', { count: groups })] : []),
    ...(rights > 0 ? [said('ground:goes.rights', { count: rights })] : []),
  ];
}

/** What something is called. @throws Problem 403 for who may not delete it, 404, 409 where a directory keeps it */
function nameOf(db: Reader, viewer: Viewer, { kind, key }: ParamsOf<'groundDeletion'>): string {
  if (!may(viewer, RIGHT[kind])) throw rightMissing(db, RIGHT[kind]);
  if (kind !== 'group') return found(designNamed(db, kind, key)?.draft.name);
  const group = groupByKey(db, key);
  if (group?.source === 'directory') throw new Problem(409, 'kept-by-directory', refused('keptByDirectoryGroup'));
  return found(group?.removedAt === null ? group.name : undefined);
}

function found(name: string | undefined): string {
  if (name === undefined) throw notFound('state');
  return name;
}

/** What uses something, and what would go with it. Keeps nothing. @throws Problem 403, 404, 409 as `deleteGround` */
export function groundDeletion(db: Reader, viewer: Viewer, at: ParamsOf<'groundDeletion'>): AnswerOf<'groundDeletion'> {
  const name = nameOf(db, viewer, at);
  return { name, uses: [...usesOf(db, at.kind, at.key)], goes: [...goesWith(db, at.kind, at.key)] };
}

/**
 * Deletes a group, a calendar, a roster or a vocabulary that nothing uses.
 *
 * @throws Problem 403 for who may not delete it, 404, 409 where something uses it, where a directory keeps it, and
 *   where nobody could give rights any more.
 */
export function deleteGround(house: House, viewer: Viewer, at: ParamsOf<'groundDeletion'>): AnswerOf<'deleteGround'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { kind, key } = at;
    const name = nameOf(work.tx, viewer, at);
    if (usesOf(work.tx, kind, key).length > 0) throw new Problem(409, 'in-use', refused('groundInUse', { name }));
    if (kind === 'group') return deleteGroup(work, viewer, key);
    const design = designNamed(work.tx, kind, key);
    if (design) deleteDesign(work.tx, design.id);
    if (kind === 'roster') forgetRoster(work.tx, key, true);
    noteGround(work, 'desk', 'deleted', { kind: 'deleted', what: kind, name });
    return undefined;
  });
  return { done: true };
}

/** Whoever deletes a group has all that it gives, or may decide about rights. */
function deleteGroup(work: Work, viewer: Viewer, key: string): void {
  const { tx } = work;
  refuseRaising(tx, viewer, key);
  const group = groupByKey(tx, key);
  if (group?.rule) changeGroup(work, { key, version: group.version, changes: { rule: null } });
  const entries = tx
    .select()
    .from(groupEntries)
    .where(sql`${groupEntries.groupKey} = ${key} or ${groupEntries.memberGroup} = ${key}`)
    .all();
  for (const { id, groupKey } of entries) leaveGroup(work, groupKey, id);
  // Who may delete it takes what it gave with it.
  takeAllRights(work, { ...viewer, rights: [...viewer.rights, 'rights'] }, key);
  removeGroup(work, key);
  refuseNobodyLeft(tx);
}
