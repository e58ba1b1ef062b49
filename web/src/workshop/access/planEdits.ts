import {
  type AccessRule,
  type BaseLevels,
  type PlanRules,
  type RequestReader,
  type RuleException,
  USUAL_BASE,
  USUAL_OUTSIDE,
} from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import type { Scope } from '@tolvek/core/expression';
import type { Audience, RELATION_WORDS } from '@tolvek/core/people';
import { type Field, fieldKeyOf, partsOf } from '@tolvek/core/register';
import { firstCondition } from '../../conditions/firstCondition.ts';

type Edit = (plan: PlanRules) => PlanRules;

/** What somebody can be to a request, as words of an audience. */
export const RELATIONS = [
  '~handler',
  '~team',
  '~decider',
  '~entered',
  '~behalf',
  '~follower',
] as const satisfies readonly (keyof typeof RELATION_WORDS)[];

/** The ordinary cases of an exception. */
export const CASES = [
  'stages',
  'deciding',
  'decided',
  'finished',
  'grace',
  'browsing',
  'taking-out',
  'letters',
  'condition',
] as const;
export type Case = (typeof CASES)[number];

/** How long something may be corrected after it came in, in minutes, as a condition. */
export const graceFor = (minutes: number): string => `now < request.arrived + duration("PT${minutes}M")`;

/** The minutes of such a condition; null for any other. */
export function graceOf(when: string): number | null {
  const found = /^now < request\.arrived \+ duration\("PT(\d+)M"\)$/.exec(when);
  return found ? Number(found[1]) : null;
}

/** Conditions of the ordinary cases: the decision that is waited for, or was made; the first half hour. */
const WHEN: Partial<Readonly<Record<Case, string>>> = {
  deciding: 'request.decision = "waiting"',
  decided: 'request.decision in ("approved", "refused")',
  finished: 'request.phase = "finished"',
  grace: graceFor(30),
};

/** An exception as it begins: where nothing else is chosen yet, the rule says nothing there. */
export function exceptionFor(which: Case, id: string, scope: Scope): RuleException {
  const begins = { id, level: 'none' as const };
  switch (which) {
    case 'stages':
      return { ...begins, stages: [] };
    case 'browsing':
    case 'taking-out':
    case 'letters':
      return { ...begins, activities: [which] };
    default:
      return { ...begins, when: WHEN[which] ?? firstCondition(scope) };
  }
}

/** What a new rule begins as, in the words of what it is for. */
export type Recipe =
  /** Hidden from everybody but the requester and the groups that are left out of it. */
  | 'only-some'
  /** Hidden from the requester. */
  | 'staff-only'
  /** Read by the requester, and not changed by them. */
  | 'requester-reads'
  /** Read by everybody, and changed by whoever asked in the first half hour. */
  | 'set-once'
  /** Hidden from who works on it until it is decided, but from those who decide. */
  | 'until-decided'
  /** Not changed any more once it is decided. */
  | 'frozen'
  /** Stays out of files that are taken out, and out of emails. */
  | 'stays-in'
  /** About nobody yet, so that it protects nothing by mistake. */
  | 'empty';

/** Those that are offered by name. */
export const RECIPES = [
  'only-some',
  'staff-only',
  'requester-reads',
  'set-once',
  'until-decided',
  'frozen',
  'stays-in',
] as const satisfies readonly Recipe[];

const EVERYONE = { in: { everyone: true }, outOf: [] } as const;

const BEGINS: Readonly<Record<Recipe, Pick<AccessRule, 'audience' | 'level' | 'exceptions' | 'asking'>>> = {
  'only-some': { audience: { ...EVERYONE, requester: 'out' }, level: 'hidden' },
  'staff-only': { audience: { in: { anyOf: [] }, outOf: [], requester: 'in' }, level: 'hidden' },
  'requester-reads': { audience: { in: { anyOf: [] }, outOf: [], requester: 'in' }, level: 'read' },
  'set-once': {
    audience: EVERYONE,
    level: 'read',
    exceptions: [{ id: 'grace', level: 'write', when: WHEN.grace ?? '' }],
  },
  'until-decided': {
    audience: { in: { everyone: true }, outOf: ['~decider'], requester: 'out' },
    level: 'hidden',
    exceptions: [{ id: 'decided', level: 'none', when: WHEN.decided ?? '' }],
  },
  frozen: {
    audience: EVERYONE,
    level: 'read',
    exceptions: [{ id: 'undecided', level: 'none', when: `not(${WHEN.decided ?? ''})` }],
  },
  'stays-in': {
    audience: EVERYONE,
    level: 'hidden',
    exceptions: [{ id: 'in-house', level: 'none', activities: ['working', 'browsing', 'searching'] }],
  },
  // One rule for all that is done, with no surprise in what is asked.
  empty: { audience: { in: { anyOf: [] }, outOf: [] }, level: 'hidden', asking: true },
};

/** A new rule, made of what every rule is made of. */
export const addRule =
  (
    id: string,
    recipe: Recipe = 'empty',
    { name = '', fields = [] }: Partial<Pick<AccessRule, 'name' | 'fields'>> = {},
  ): Edit =>
  (plan) => ({ ...plan, rules: [...plan.rules, { id, name, fields, ...BEGINS[recipe] }] });

/** Another state of one rule, wherever it stands. */
export const changeRule =
  (id: string, next: (rule: AccessRule) => AccessRule): Edit =>
  ({ rules, resting, ...plan }) => {
    const changed = (list: readonly AccessRule[]) => list.map((rule) => (rule.id === id ? next(rule) : rule));
    return { ...plan, rules: changed(rules), resting: changed(resting) };
  };

export const removeRule =
  (id: string): Edit =>
  ({ rules, resting, ...plan }) => ({
    ...plan,
    rules: rules.filter((rule) => rule.id !== id),
    resting: resting.filter((rule) => rule.id !== id),
  });

/** Switches a rule off, or on again; it comes last among those where it goes. */
export const switchRule =
  (id: string, on: boolean): Edit =>
  (plan) => {
    const rule = [...plan.rules, ...plan.resting].find((each) => each.id === id);
    if (!rule) return plan;
    const { rules, resting, ...rest } = removeRule(id)(plan);
    return on ? { ...rest, rules: [...rules, rule], resting } : { ...rest, rules, resting: [...resting, rule] };
  };

/** Other levels where no rule says otherwise; as usual, where they are that. */
export const withBase =
  (base: BaseLevels): Edit =>
  ({ base: _, ...plan }) => {
    const { outside, ...rest } = base;
    const isUsual = outside === undefined || isSame(outside, USUAL_OUTSIDE);
    const next = isUsual ? rest : base;
    return isSame(next, USUAL_BASE) ? plan : { ...plan, base: next };
  };

/** Others in the place of those who read whole requests by a condition. */
export const withReaders =
  (next: (readers: readonly RequestReader[]) => readonly RequestReader[]): Edit =>
  ({ readers = [], ...plan }) => {
    const others = next(readers);
    return others.length > 0 ? { ...plan, readers: others } : plan;
  };

/** Gives fields their place in a plan; `stand`: those that have it in the plan in force. */
export const place =
  (fields: readonly string[], stand: readonly string[] = []): Edit =>
  ({ placed = stand, ...plan }) => ({ ...plan, placed: [...new Set([...placed, ...fields])] });

/** Lets every rule that names a field name another as well, which gets its place by that. */
export const placeLike =
  (field: string, like: string, stand: readonly string[] = []): Edit =>
  (plan) => {
    const alike = (rules: readonly AccessRule[]) =>
      rules.map((rule) =>
        rule.fields !== 'all' && rule.fields.includes(like) && !rule.fields.includes(field)
          ? { ...rule, fields: [...rule.fields, field] }
          : rule,
      );
    return place([field], stand)({ ...plan, rules: alike(plan.rules), resting: alike(plan.resting) });
  };

/** Has the reading of a field noted, or not any more. */
export const noteReading =
  (field: string): Edit =>
  ({ noted = [], ...plan }) => {
    const next = toggled(noted, field);
    return next.length > 0 ? { ...plan, noted: next } : plan;
  };

/** Who is meant: everybody, whoever is one of some, or whoever is all of them. */
export type Meant = 'everyone' | 'anyOf' | 'allOf';

export const meantBy = ({ in: inside }: Audience): Meant =>
  'everyone' in inside ? 'everyone' : 'anyOf' in inside ? 'anyOf' : 'allOf';

export const wordsMeant = ({ in: inside }: Audience): readonly string[] =>
  'anyOf' in inside ? inside.anyOf : 'allOf' in inside ? inside.allOf : [];

/** The same audience with others meant; who was chosen stays chosen between “one of” and “all of”. */
export function meaning(audience: Audience, meant: Meant, words: readonly string[] = wordsMeant(audience)): Audience {
  const inside: Audience['in'] =
    meant === 'everyone' ? { everyone: true } : meant === 'anyOf' ? { anyOf: words } : { allOf: words };
  return { ...audience, in: inside };
}

/** Whether the requester is in, out, or as anybody else. */
export function withRequester(audience: Audience, requester: 'in' | 'out' | 'as-others'): Audience {
  const { requester: _, ...rest } = audience;
  return requester === 'as-others' ? rest : { ...rest, requester };
}

/** Whether a rule hides something anywhere. */
export const hides = ({ level, exceptions = [] }: AccessRule): boolean =>
  level === 'hidden' || exceptions.some((each) => each.level === 'hidden');

export const toggled = (list: readonly string[], key: string): readonly string[] =>
  list.includes(key) ? list.filter((each) => each !== key) : [...list, key];

/** The fields of a rule with one of them more, or less; a field of lines stands for all of its columns. */
export const withField = (fields: readonly string[], key: string): readonly string[] =>
  toggled(
    fields.filter((each) => each === key || fieldKeyOf(each) !== key),
    key,
  );

/** What a rule can name: fields, and columns of those lines that it does not name as a whole. */
export const nameable = (fields: readonly Field[], named: readonly string[]): readonly Field[] =>
  partsOf(fields).filter(({ key }) => fieldKeyOf(key) === key || !named.includes(fieldKeyOf(key)));
