import type { Words } from '@tolvek/words';
import { belongs, type Viewer } from '../people/index.ts';
import { hasToDoWith } from './accessTo.ts';
import type { RequestMoment } from './circumstance.ts';
import { moversNamed } from './classes.ts';
import { type AccessLevel, RANK } from './plan.ts';
import type { Concerned } from './planEffect.ts';
import type { Protection } from './protection.ts';
import { type Gathered, readsAlso } from './relation.ts';
import { prepareAccess } from './situation.ts';

/** One level that somebody has a field at, the rule that decides, and on how many requests. */
export interface LevelOver {
  readonly level: AccessLevel;
  readonly rule: Words;
  readonly requests: number;
  /** One of them, where that is known. */
  readonly example: string | null;
}

/** What somebody may do with fields, over all requests they have to do with; the most comes first. */
export interface Over {
  readonly personId: string;
  readonly requests: number;
  readonly fields: readonly { readonly field: string; readonly levels: readonly LevelOver[] }[];
}

/**
 * Who may see and change what, over requests that were gathered: for each person each field with its levels, the rule
 * that decides, and how many requests that is so on. `fields`: the keys of those that are asked for.
 */
export function levelsOver(
  people: readonly Concerned[],
  { sorts, standings }: Gathered,
  protections: (sort: string) => { readonly protection: Protection; readonly at: RequestMoment },
  fields: readonly string[],
): readonly Over[] {
  const rules = [...new Set(sorts.flatMap((sort) => protections(sort).protection.plan.rules))];
  const named = moversNamed({ rules });
  const known = new Map<string, readonly { readonly level: AccessLevel; readonly rule: Words }[]>();
  return people.map(({ personId, groups, kind: of = 'staff', meets = [], viewer: whoIs }) => {
    const viewer: Viewer = whoIs();
    const sums = fields.map(() => new Map<string, LevelOver & { requests: number }>());
    let requests = 0;
    for (const { sort, relation: own, n, example } of standings(viewer)) {
      const { protection, at } = protections(sort);
      const relation = readsAlso(protection.plan, viewer, own, at.holds);
      if (!hasToDoWith(relation)) continue;
      requests += n;
      const as = named.filter((each) => relation.as?.includes(each));
      const holds = protection.plan.rules.map((rule) =>
        belongs(rule.audience, { personId, groups, kind: of, meets }, relation) ? 1 : 0,
      );
      const kind = `${sort} ${relation.isDesk}${relation.isRequester}${relation.onlyReads ?? false}${relation.calledIn ?? false}${relation.builds ?? false} ${as.join()} ${holds.join('')}`;
      let levels = known.get(kind);
      if (!levels) {
        const reading = prepareAccess(protection)({ viewer, relation, purpose: 'sheet', at });
        known.set(kind, (levels = fields.map((key) => reading.levelOf(key))));
      }
      for (const [index, { level, rule }] of levels.entries()) {
        const by = sums[index] as Map<string, LevelOver & { requests: number }>;
        const key = `${level} ${JSON.stringify(rule)}`;
        const found = by.get(key);
        if (found) found.requests += n;
        else by.set(key, { level, rule, requests: n, example });
      }
    }
    return {
      personId,
      requests,
      fields: fields.map((field, index) => ({
        field,
        levels: [...(sums[index]?.values() ?? [])].sort(
          (a, b) => RANK[b.level] - RANK[a.level] || b.requests - a.requests,
        ),
      })),
    };
  });
}
