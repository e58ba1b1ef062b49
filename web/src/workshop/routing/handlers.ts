import type { HandlerRule, HandlerWay } from '@tolvek/core/assignment';
import type { RoutingOutcome } from '@tolvek/core/routing';
import { moved } from '../edits.ts';

type Rule = HandlerRule | undefined;

/** An outcome whose handler is found by a rule, or for which the team takes it. */
export function handledBy({ handler: _, ...outcome }: RoutingOutcome, rule: Rule): RoutingOutcome {
  return rule ? { ...outcome, handler: rule } : outcome;
}

/** A way of finding a handler, as it is added first; null where there is nothing it could name. */
export function wayOf(
  by: HandlerWay['by'],
  fields: readonly { readonly key: string }[],
  people: readonly { readonly key: string }[],
  skills: readonly { readonly key: string }[] = [],
  rosters: readonly { readonly key: string }[] = [],
): HandlerWay | null {
  const [field, person, skill, roster] = [fields[0]?.key, people[0]?.key, skills[0]?.key, rosters[0]?.key];
  if (by === 'field') return field === undefined ? null : { by, field };
  if (by === 'person') return person === undefined ? null : { by, person };
  if (by === 'skill') return skill === undefined ? null : { by, skill, least: 1 };
  if (by === 'duty') return roster === undefined ? null : { by, roster };
  return { by };
}

/** A rule with other ways; none at all where no way is left: then the team takes it. */
function withWays(rule: Rule, ways: readonly HandlerWay[]): Rule {
  if (ways.length === 0) return undefined;
  return rule?.most === undefined ? { ways } : { ways, most: rule.most };
}

export const addWay = (rule: Rule, way: HandlerWay): Rule => withWays(rule, [...(rule?.ways ?? []), way]);

export const setWay = (rule: Rule, place: number, way: HandlerWay): Rule =>
  withWays(
    rule,
    (rule?.ways ?? []).map((each, at) => (at === place ? way : each)),
  );

export const removeWay = (rule: Rule, place: number): Rule =>
  withWays(
    rule,
    (rule?.ways ?? []).filter((_, at) => at !== place),
  );

/** A way one place earlier or later; what can’t move stays. */
export function moveWay(rule: Rule, place: number, by: -1 | 1): Rule {
  const ways = rule?.ways ?? [];
  return ways[place] && ways[place + by] ? withWays(rule, moved(ways, place, by)) : rule;
}

/** How many somebody handles at most who is given one more; null: however many. */
export const setMost = ({ ways }: HandlerRule, most: number | null): HandlerRule =>
  most === null || !Number.isFinite(most) ? { ways } : { ways, most: Math.min(1_000, Math.max(1, Math.round(most))) };

/** A skill that has to have been checked within so many months; null: at any time. */
export function withMonths(
  { months: _, ...way }: Extract<HandlerWay, { by: 'skill' }>,
  months: number | null,
): Extract<HandlerWay, { by: 'skill' }> {
  return months === null || !Number.isFinite(months)
    ? way
    : { ...way, months: Math.min(600, Math.max(1, Math.round(months))) };
}
