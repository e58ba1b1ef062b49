import { type Audience, belongs, groupsIn, NO_REQUEST, type Somebody } from './audience.ts';
import type { Entry } from './groups.ts';

/** A group whose members follow from a rule: everybody whom an audience means, apart from requests. */
export interface RuledGroup {
  readonly key: string;
  /** Groups, people, whoever is known from outside, and conditions on profiles; who is left out. */
  readonly rule: Audience;
}

/** What a rule asks about other groups, as ways into its own: circles are found by them as by groups in groups. */
export const asEntries = ({ key, rule }: RuledGroup): readonly Entry[] =>
  groupsIn(rule).map((group) => ({ group: key, member: { group }, from: null, until: null }));

/**
 * Ruled groups, each after those that its rule asks about, by themselves or through the groups in a group. `nested`: groups in
 * groups. What would be a circle ends where it began.
 */
export function inOrder(ruled: readonly RuledGroup[], nested: readonly Entry[]): readonly RuledGroup[] {
  const inside = new Map<string, string[]>();
  for (const { group, member } of [...nested, ...ruled.flatMap(asEntries)])
    if ('group' in member) inside.set(group, [...(inside.get(group) ?? []), member.group]);
  const byKey = new Map(ruled.map((each) => [each.key, each]));
  const seen = new Set<string>();
  const ordered: RuledGroup[] = [];
  const visit = (key: string): void => {
    if (seen.has(key)) return;
    seen.add(key);
    for (const inner of inside.get(key) ?? []) visit(inner);
    const group = byKey.get(key);
    if (group) ordered.push(group);
  };
  for (const { key } of ruled) visit(key);
  return ordered;
}

/** Whether a rule means somebody. */
export const isRuledIn = ({ rule }: Pick<RuledGroup, 'rule'>, who: Somebody): boolean => belongs(rule, who, NO_REQUEST);
