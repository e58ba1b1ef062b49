import { isSame } from '@tolvek/core/own';
import {
  asEntries,
  inOrder,
  inPlace,
  isRuledIn,
  profileConditionsIn,
  type RuledGroup,
  type Somebody,
  type StandIn,
} from '@tolvek/core/people';
import { namedIn } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { and, eq, isNotNull, isNull, ne } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { prepared } from '../platform/prepared.ts';
import { Problem } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { nestedEntries } from './entries.ts';
import { refuseRaising } from './grants.ts';
import { noteGround } from './history.ts';
import { groupNames, groupsOf, metBy, personById, viewerIn } from './queries.ts';
import { settleGroup, settleNewDay, settlePerson, type Touched, todayAt } from './settle.ts';
import { groupEntries, groups, memberships, people } from './tables.ts';

const ruled = prepared((db) =>
  db
    .select({ key: groups.key, rule: groups.rule })
    .from(groups)
    .where(and(isNotNull(groups.rule), isNull(groups.removedAt)))
    .orderBy(groups.key)
    .prepare(),
);

/** Groups with a rule. */
export const ruledGroups = (db: Reader): readonly RuledGroup[] =>
  ruled(db)
    .all()
    .flatMap(({ key, rule }) => (rule ? [{ key, rule }] : []));

/** What rules ask about groups, as ways into their own. */
export const ruleEntries = (db: Reader) => ruledGroups(db).flatMap(asEntries);

/** The groups whose rules name a group, a person, or a field of profiles. */
export const rulesNaming = (
  db: Reader,
  { kind, key }: { readonly kind: string; readonly key: string },
): readonly { readonly key: string; readonly name: string }[] => {
  const names = groupNames(db);
  return ruledGroups(db).flatMap(({ key: group, rule }) =>
    namedIn(rule).some((each) => each.kind === kind && each.key === key)
      ? [{ key: group, name: names.get(group) ?? group }]
      : [],
  );
};

/** Puts other words in the place of some that rules of groups name. */
export function renameInRules(work: Work, words: Readonly<Record<string, string>>): void {
  for (const { key, rule } of ruledGroups(work.tx)) {
    const renamed = inPlace(rule, words);
    if (isSame(renamed, rule)) continue;
    work.tx.update(groups).set({ rule: renamed }).where(eq(groups.key, key)).run();
    noteGround(work, 'group', key, { kind: 'ruled', before: rule, after: renamed });
  }
}

type Known = Pick<typeof people.$inferSelect, 'id' | 'kind' | 'profile'>;

const somebody = (db: Reader, person: Known, inside: readonly string[], { rule }: RuledGroup): Somebody => ({
  ...{ personId: person.id, kind: person.kind, groups: inside },
  meets: metBy(db, person, profileConditionsIn(rule)),
});

/** Whom a rule would mean of everybody, by their groups as they are settled now. */
export function meantBy(db: Reader, group: RuledGroup): ReadonlySet<string> {
  const inside = new Map<string, string[]>();
  // What the group itself holds says nothing of who is to be in it.
  for (const { groupKey, personId } of db.select().from(memberships).all())
    if (groupKey !== group.key) inside.set(personId, [...(inside.get(personId) ?? []), groupKey]);
  const everybody = db
    .select({ id: people.id, kind: people.kind, profile: people.profile })
    .from(people)
    .where(and(isNull(people.mergedInto), isNull(people.removedAt)))
    .all();
  return new Set(
    everybody.flatMap((person) =>
      isRuledIn(group, somebody(db, person, inside.get(person.id) ?? [], group)) ? [person.id] : [],
    ),
  );
}

/** Who is in a group now, by id. */
export const membersNow = (db: Reader, group: string): ReadonlySet<string> =>
  new Set(
    db
      .select({ id: memberships.personId })
      .from(memberships)
      .where(eq(memberships.groupKey, group))
      .all()
      .map(({ id }) => id),
  );

/** Of those, who would be in it without its rule: let in one by one, or with another group. */
export function membersBesideRule(db: Reader, group: string): ReadonlySet<string> {
  const letIn = letInBy(db, group);
  const ways = db
    .select()
    .from(groupEntries)
    .where(and(eq(groupEntries.groupKey, group), ne(groupEntries.source, 'rule')))
    .all();
  const byHand = new Set(ways.flatMap(({ personId }) => personId ?? []));
  const inner = ways.flatMap(({ memberGroup }) => (memberGroup === null ? [] : [...membersNow(db, memberGroup)]));
  return new Set([...membersNow(db, group)].filter((id) => !letIn.has(id) || byHand.has(id) || inner.includes(id)));
}

/** Those whom the rule of a group let in, by id. */
const letInBy = (db: Reader, group: string): ReadonlySet<string> =>
  new Set(
    db
      .select({ id: groupEntries.personId })
      .from(groupEntries)
      .where(and(eq(groupEntries.groupKey, group), eq(groupEntries.source, 'rule')))
      .all()
      .flatMap(({ id }) => id ?? []),
  );

function letIn(tx: Transaction, groupKey: string, personId: string): void {
  const row = { id: newId(), groupKey, personId, memberGroup: null, fromDay: null, untilDay: null };
  tx.insert(groupEntries)
    .values({ ...row, source: 'rule' })
    .run();
}

const byRule = (tx: Transaction, group: string, person: string): void =>
  void tx
    .delete(groupEntries)
    .where(and(eq(groupEntries.groupKey, group), eq(groupEntries.personId, person), eq(groupEntries.source, 'rule')))
    .run();

/**
 * Whoever changes somebody does not let them into a group by its rule that may do more than they themselves.
 *
 * @throws Problem 403
 */
function refuseRaisedByRule({ tx, actor }: Work, group: string): void {
  const person = actor === null ? undefined : personById(tx, actor);
  if (!person) return;
  try {
    refuseRaising(tx, viewerIn(tx, person), group);
  } catch (refusal) {
    if (!(refusal instanceof Problem)) throw refusal;
    throw new Problem(403, 'rule-raises', refused('ruleRaises', { group: groupNames(tx).get(group) ?? group }));
  }
}

/** Whom the rules of groups mean is settled for one person: who they are, or what they are in, may be otherwise. */
function settleOne(work: Work, id: string, ordered: readonly RuledGroup[], day: string): void {
  const { tx } = work;
  const person = personById(tx, id);
  if (!person) return;
  const had = new Set(
    tx
      .select({ key: groupEntries.groupKey })
      .from(groupEntries)
      .where(and(eq(groupEntries.personId, id), eq(groupEntries.source, 'rule')))
      .all()
      .map(({ key }) => key),
  );
  const isHere = person.mergedInto === null && person.removedAt === null;
  for (const group of ordered) {
    const { key } = group;
    const inside = groupsOf(tx, id).filter((each) => each !== key);
    const isIn = isHere && isRuledIn(group, somebody(tx, person, inside, group));
    if (isIn === had.has(key)) continue;
    if (isIn) {
      refuseRaisedByRule(work, key);
      letIn(tx, key, id);
    } else byRule(tx, key, id);
    settlePerson(tx, id, day);
    note(work, key, id, isIn, true);
  }
}

/** Writes down that a rule let somebody in, or out again; on their own side as well where they were what changed. */
function note(work: Work, group: string, person: string, isIn: boolean, onBoth: boolean): void {
  const kind = isIn ? 'entered' : 'left';
  const change = { kind, group, member: { person }, from: null, until: null, byRule: true } as const;
  noteGround(work, 'group', group, change);
  if (onBoth) noteGround(work, 'person', person, change);
}

/** The same for everybody, one group after the other. */
function settleAll(work: Work, ordered: readonly RuledGroup[], day: string): void {
  const { tx } = work;
  for (const group of ordered) {
    const { key } = group;
    const had = letInBy(tx, key);
    const wanted = meantBy(tx, group);
    const [come, go] = [[...wanted].filter((id) => !had.has(id)), [...had].filter((id) => !wanted.has(id))];
    if (come.length + go.length === 0) continue;
    if (come.length > 0) refuseRaisedByRule(work, key);
    for (const id of come) letIn(tx, key, id);
    for (const id of go) byRule(tx, key, id);
    settleGroup(tx, key, day);
    for (const id of come) note(work, key, id, true, false);
    for (const id of go) note(work, key, id, false, false);
  }
}

/** Few enough to be looked at one by one. */
const FEW = 50;

/**
 * Settles who is in groups by their rules, after some people, or what they are in, may be otherwise.
 *
 * @throws Problem 403 where somebody would come to do more than whoever changed them.
 */
export function settleRules(work: Work, whom: Touched): void {
  const { tx, now } = work;
  const all = ruledGroups(tx);
  if (all.length === 0 || whom.length === 0) return;
  const day = todayAt(tx, now);
  const ordered = inOrder(all, nestedEntries(tx));
  if (whom === 'all' || whom.length > FEW) settleAll(work, ordered, day);
  else for (const id of whom) settleOne(work, id, ordered, day);
}

/** Takes out whom the rule of a group let in: it has none any more. */
export function endRule(work: Work, key: string): void {
  const { tx, now } = work;
  const had = letInBy(tx, key);
  tx.delete(groupEntries)
    .where(and(eq(groupEntries.groupKey, key), eq(groupEntries.source, 'rule')))
    .run();
  settleGroup(tx, key, todayAt(tx, now));
  for (const id of had) note(work, key, id, false, false);
  settleRules(work, 'all');
}

/** Begins a new day, where one has turned: who is in which group, by rules as well. Returns who takes whose place since then. */
export function beginDay(work: Work): readonly StandIn[] {
  const { standing, touched } = settleNewDay(work.tx, work.now);
  settleRules(work, touched);
  return standing;
}
