import { isSame } from '../design/index.ts';
import type { Viewer } from '../people/index.ts';
import { type Field, fieldKeyOf, partsOf } from '../register/index.ts';
import { planned, type Relation } from './accessTo.ts';
import type { RequestMoment } from './circumstance.ts';
import { classesOf } from './classes.ts';
import {
  type AccessLevel,
  type AccessRule,
  type Activity,
  concernedWith,
  type Deciding,
  isPlaced,
  leavesToBuilders,
  type PlanRules,
  RANK,
  USUAL_BASE,
} from './plan.ts';
import type { Protection } from './protection.ts';
import { type Purpose, prepareAccess } from './situation.ts';

/** What becomes otherwise for somebody with one field. */
export interface LevelChange {
  readonly field: Field;
  readonly before: AccessLevel;
  readonly after: AccessLevel;
}

/** As what somebody looks who does something with a request. */
const PURPOSE: Readonly<Record<Activity, Purpose>> = {
  ...{ working: 'sheet', browsing: 'list', searching: 'counting', 'taking-out': 'taking-out', letters: 'letter' },
};

/** What becomes otherwise for somebody on the requests that two protections protect, before and after, field by field. */
export function levelChanges(
  before: Protection,
  after: Protection,
  viewer: Viewer,
  relation: Relation,
  at: RequestMoment,
  activity: Activity = 'working',
): readonly LevelChange[] {
  const situation = { viewer, relation, purpose: PURPOSE[activity], at };
  const [was, is] = [prepareAccess(before)(situation), prepareAccess(after)(situation)];
  const levels = (key: string): readonly [AccessLevel, AccessLevel] => [was.levelOf(key).level, is.levelOf(key).level];
  return partsOf(after.fields).flatMap((field) => {
    const [had, has] = levels(field.key);
    if (had === has) return [];
    // What becomes of all lines is said once, not for each of their columns.
    const lines = fieldKeyOf(field.key);
    const isSaid = lines !== field.key && levels(lines).join() === `${had},${has}`;
    return isSaid ? [] : [{ field, before: had, after: has }];
  });
}

/**
 * The fields that a plan opens to anybody further than another one did, and how far: for every kind of viewer that the
 * two tell apart, whoever works here just now. Where these are too many to be told apart, every field that their rules
 * name counts as opened.
 */
export function openedBy(
  before: Deciding,
  after: Deciding,
  fields: readonly Field[],
): ReadonlyMap<string, AccessLevel> {
  const opened = new Map<string, AccessLevel>();
  for (const field of partsOf(fields)) {
    const [was, is] = [concernedWith(before, [field.key]), concernedWith(after, [field.key])];
    const isSameBase = isSame(was.base ?? USUAL_BASE, is.base ?? USUAL_BASE);
    if (
      isSameBase &&
      isPlaced(was, field) === isPlaced(is, field) &&
      was.rules.length === is.rules.length &&
      was.rules.every((rule, index) => rule === is.rules[index])
    )
      continue;
    const builders = leavesToBuilders(was, [field]) || leavesToBuilders(is, [field]);
    const classes = classesOf({ rules: [...was.rules, ...is.rules] }, undefined, builders);
    if (classes === null) opened.set(field.key, 'write');
    for (const each of classes ?? []) {
      const level = planned(field, is, each, each.relation, each.at).level;
      if (RANK[level] <= RANK[planned(field, was, each, each.relation, each.at).level]) continue;
      if (RANK[level] > RANK[opened.get(field.key) ?? 'hidden']) opened.set(field.key, level);
    }
  }
  return opened;
}

/** What became of the rules of a plan, by their names. */
export interface RuleChanges {
  readonly added: readonly string[];
  readonly changed: readonly string[];
  readonly removed: readonly string[];
  readonly switchedOff: readonly string[];
  readonly switchedOn: readonly string[];
}

export function ruleChanges(before: PlanRules, after: PlanRules): RuleChanges {
  const all = ({
    rules,
    resting,
  }: PlanRules): ReadonlyMap<string, { readonly rule: AccessRule; readonly on: boolean }> =>
    new Map(
      [rules.map((rule) => ({ rule, on: true })), resting.map((rule) => ({ rule, on: false }))]
        .flat()
        .map((each) => [each.rule.id, each]),
    );
  const [was, is] = [all(before), all(after)];
  const names = (rules: readonly AccessRule[]): readonly string[] => rules.map(({ name }) => name);
  const both = [...is.values()].flatMap((now) => {
    const then = was.get(now.rule.id);
    return then ? [{ then, now }] : [];
  });
  return {
    added: names([...is.values()].flatMap(({ rule }) => (was.has(rule.id) ? [] : [rule]))),
    changed: names(both.flatMap(({ then, now }) => (isSame(then.rule, now.rule) ? [] : [now.rule]))),
    removed: names([...was.values()].flatMap(({ rule }) => (is.has(rule.id) ? [] : [rule]))),
    switchedOff: names(both.flatMap(({ then, now }) => (then.on && !now.on ? [now.rule] : []))),
    switchedOn: names(both.flatMap(({ then, now }) => (!then.on && now.on ? [now.rule] : []))),
  };
}
