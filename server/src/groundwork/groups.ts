import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { type Audience, holdsOn, peopleIn, type Viewer } from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';
import { asc, eq, isNull } from 'drizzle-orm';
import { wrongConditions } from '../people/conditions.ts';
import { entryOf, nestedRows } from '../people/entries.ts';
import { differingRegisters, grantedTo, refuseNobodyLeft } from '../people/given.ts';
import { refuseRaising } from '../people/grants.ts';
import { changeGroup, enterGroup, type GroupRow, groupByKey, leaveGroup, makeGroup } from '../people/groups.ts';
import { groundHistoryOf } from '../people/history.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { meantBy, membersBesideRule, membersNow } from '../people/rules.ts';
import { todayAt } from '../people/settle.ts';
import { groupEntries, groups, people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { nameOf } from '../request/names.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { allVocabularies } from '../vocabulary/queries.ts';
import { namedIn } from './uses.ts';

type Row = AnswerOf<'groups'>['groups'][number];

function rowsOf(db: Reader, rows: readonly GroupRow[]): readonly Row[] {
  const names = groupNames(db);
  const inside = new Map<string, string[]>();
  for (const { groupKey, memberGroup } of nestedRows(db))
    inside.set(groupKey, [...(inside.get(groupKey) ?? []), names.get(memberGroup ?? '') ?? '']);
  return rows.map(({ key, name, about, mailbox, isTeam, retired, source, members, rule }) => ({
    ...{ key, name, about, mailbox, isTeam, retired, source, members, ruled: rule !== null },
    inside: [...new Set(inside.get(key))].sort(),
  }));
}

export const groupsView = (db: Reader): AnswerOf<'groups'> => ({
  groups: [...rowsOf(db, db.select().from(groups).where(isNull(groups.removedAt)).orderBy(asc(groups.name)).all())],
});

export function groupView(db: Reader, key: string, now: number): AnswerOf<'group'> {
  const group = groupByKey(db, key);
  const [row] = group ? rowsOf(db, [group]) : [];
  if (!group || !row || group.removedAt !== null) throw notFound('group');
  const day = todayAt(db, now);
  const names = groupNames(db);
  const found = db
    .select({ entry: groupEntries, name: people.name, email: people.email, active: people.active })
    .from(groupEntries)
    .leftJoin(people, eq(people.id, groupEntries.personId))
    .where(eq(groupEntries.groupKey, key))
    .orderBy(asc(people.name))
    .all();
  const { fields } = profileDesignOf(db);
  const isTold = ({ type: { kind } }: (typeof fields)[number]): boolean => kind === 'term' || kind === 'terms';
  return {
    ...row,
    version: group.version,
    rule: group.rule,
    named: Object.fromEntries(namesOf(db, group.rule ? peopleIn(group.rule) : [])),
    profile: fields,
    vocabularies: fields.some(isTold) ? allVocabularies(db) : [],
    entries: found.map(({ entry, name, email, active }) => ({
      id: entry.id,
      member:
        entry.memberGroup === null
          ? { person: entry.personId ?? '', name: name ?? '', email: email ?? '', active: active ?? false }
          : { group: entry.memberGroup, name: names.get(entry.memberGroup) ?? entry.memberGroup },
      ...{ from: entry.fromDay, until: entry.untilDay, now: holdsOn(entryOf(entry), day), source: entry.source },
    })),
    within: db
      .selectDistinct({ key: groups.key, name: groups.name })
      .from(groupEntries)
      .innerJoin(groups, eq(groups.key, groupEntries.groupKey))
      .where(eq(groupEntries.memberGroup, key))
      .all(),
    uses: usesOf(db, key),
    history: groundHistoryOf(db, 'group', key, nameOf(db)),
  };
}

/** What names a group, and where. */
const usesOf = (db: Reader, key: string): AnswerOf<'group'>['uses'] => [
  ...namedIn(db, { kind: 'group', key }),
  ...rightsGivenTo(db, key),
];

/** What is given to a group as its rights: for the whole desk, and where a register differs. */
function rightsGivenTo(db: Reader, key: string): AnswerOf<'group'>['uses'] {
  const page = '/workshop/groundwork/rights';
  const of = (title: Words, count: number, to: string) =>
    count > 0 ? [{ title, at: said('ground:rightsGiven', { count }), to }] : [];
  return [
    ...of(said('ground:rightsOfDesk'), grantedTo(db, key).length, page),
    ...[...differingRegisters(db).values()].flatMap(({ register, differences }) => {
      const { name, key: registerKey } = registerById(db, register);
      const count = differences.filter(({ subject }) => subject === key).length;
      return of(said('ground:rightsIn', { name }), count, `${page}?register=${registerKey}`);
    }),
  ];
}

export const addGroup = (house: House, viewer: Viewer, body: BodyOf<'addGroup'>, key: string): AnswerOf<'addGroup'> =>
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    return once(work.tx, { key, scope: `group ${viewer.personId}`, content: body, now: work.now }, () => ({
      key: makeGroup(work, { name: body.name, isTeam: body.isTeam, ...(body.about ? { about: body.about } : {}) }),
    }));
  });

export const putGroup = (
  house: House,
  viewer: Viewer,
  key: string,
  version: number,
  changes: BodyOf<'changeGroup'>,
): AnswerOf<'changeGroup'> => ({
  version: write(house, (work) => {
    const { rule } = changes;
    if (rule) {
      refuseUnreadable(work.tx, rule);
      refuseRaising(work.tx, viewer, key);
    }
    const next = changeGroup(by(work, viewer.personId), { key, version, changes });
    if (rule !== undefined) refuseNobodyLeft(work.tx);
    return next;
  }),
});

/** @throws Problem 422 where a condition of a rule can’t be read, or names what profiles do not have */
function refuseUnreadable(db: Reader, rule: Audience): void {
  const problems = wrongConditions(db, rule, 'rule');
  if (problems.length > 0) throw wrongFields(problems);
}

/** People who are named of many. */
const NAMED = 12;

/** Whom another rule of a group would let in, and whom no longer. @throws Problem 404, 422 */
export function tryRule(db: Reader, key: string, { rule }: BodyOf<'tryRule'>): AnswerOf<'tryRule'> {
  if (!groupByKey(db, key)) throw notFound('group');
  refuseUnreadable(db, rule);
  const means = meantBy(db, { key, rule });
  const inside = membersNow(db, key);
  const bySomethingElse = membersBesideRule(db, key);
  const some = (ids: readonly string[]) => ({
    count: ids.length,
    names: [...namesOf(db, ids).values()].sort((a, b) => a.localeCompare(b)).slice(0, NAMED),
  });
  return {
    means: means.size,
    comes: some([...means].filter((id) => !inside.has(id))),
    goes: some([...inside].filter((id) => !means.has(id) && !bySomethingElse.has(id))),
  };
}

/** @throws Problem 422 unless one of a person and a group is named */
export const letIn = (
  house: House,
  viewer: Viewer,
  group: string,
  body: BodyOf<'enterGroup'>,
  key: string,
): AnswerOf<'enterGroup'> =>
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { person, group: inner, from, until } = body;
    if ((person === undefined) === (inner === undefined))
      throw wrongFields([{ field: 'person', message: said('ground:noMember'), fix: said('ground:chooseMember') }]);
    refuseRaising(work.tx, viewer, group);
    const member = person === undefined ? { group: inner ?? '' } : { person };
    const content = { group, ...body };
    return once(work.tx, { key, scope: `entry ${viewer.personId}`, content, now: work.now }, () => ({
      id: enterGroup(work, { group, member, from, until }),
    }));
  });

export const takeOut = (house: House, viewer: Viewer, group: string, entry: string): AnswerOf<'leaveGroup'> => {
  write(house, (work) => {
    leaveGroup(by(work, viewer.personId), group, entry);
    refuseNobodyLeft(work.tx);
  });
  return { done: true };
};
