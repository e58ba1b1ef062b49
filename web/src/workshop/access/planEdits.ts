import type { AccessRule, PlanRules } from '@tolvek/core/access';
import type { Audience } from '@tolvek/core/people';

type Edit = (plan: PlanRules) => PlanRules;

/** What a new rule begins as, in the words of what it is for. */
export type Recipe =
  /** Hidden from everybody but the requester and the groups that are left out of it. */
  | 'only-some'
  /** Hidden from the requester. */
  | 'staff-only'
  /** Read by the requester, and not changed by them. */
  | 'requester-reads'
  /** About nobody yet, so that it protects nothing by mistake. */
  | 'empty';

/** Those that are offered by name. */
export const RECIPES = ['only-some', 'staff-only', 'requester-reads'] as const satisfies readonly Recipe[];

const BEGINS: Readonly<Record<Recipe, Pick<AccessRule, 'audience' | 'level'>>> = {
  'only-some': { audience: { in: { everyone: true }, outOf: [], requester: 'out' }, level: 'hidden' },
  'staff-only': { audience: { in: { anyOf: [] }, outOf: [], requester: 'in' }, level: 'hidden' },
  'requester-reads': { audience: { in: { anyOf: [] }, outOf: [], requester: 'in' }, level: 'read' },
  empty: { audience: { in: { anyOf: [] }, outOf: [] }, level: 'hidden' },
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
  ({ rules, resting }) => {
    const changed = (list: readonly AccessRule[]) => list.map((rule) => (rule.id === id ? next(rule) : rule));
    return { rules: changed(rules), resting: changed(resting) };
  };

export const removeRule =
  (id: string): Edit =>
  ({ rules, resting }) => ({
    rules: rules.filter((rule) => rule.id !== id),
    resting: resting.filter((rule) => rule.id !== id),
  });

/** Switches a rule off, or on again; it comes last among those where it goes. */
export const switchRule =
  (id: string, on: boolean): Edit =>
  (plan) => {
    const rule = [...plan.rules, ...plan.resting].find((each) => each.id === id);
    if (!rule) return plan;
    const { rules, resting } = removeRule(id)(plan);
    return on ? { rules: [...rules, rule], resting } : { rules, resting: [...resting, rule] };
  };

/** Who is meant: everybody, whoever is in one of some groups, or whoever is in all of them. */
export type Meant = 'everyone' | 'anyOf' | 'allOf';

export const meantBy = ({ in: inside }: Audience): Meant =>
  'everyone' in inside ? 'everyone' : 'anyOf' in inside ? 'anyOf' : 'allOf';

export const groupsMeant = ({ in: inside }: Audience): readonly string[] =>
  'anyOf' in inside ? inside.anyOf : 'allOf' in inside ? inside.allOf : [];

/** The same audience with others meant; groups that were chosen stay chosen between “one of” and “all of”. */
export function meaning(audience: Audience, meant: Meant, groups: readonly string[] = groupsMeant(audience)): Audience {
  const inside: Audience['in'] =
    meant === 'everyone' ? { everyone: true } : meant === 'anyOf' ? { anyOf: groups } : { allOf: groups };
  return { ...audience, in: inside };
}

/** Whether the requester is in, out, or as anybody else. */
export function withRequester(audience: Audience, requester: 'in' | 'out' | 'as-others'): Audience {
  const { requester: _, ...rest } = audience;
  return requester === 'as-others' ? rest : { ...rest, requester };
}

export const toggled = (list: readonly string[], key: string): readonly string[] =>
  list.includes(key) ? list.filter((each) => each !== key) : [...list, key];
