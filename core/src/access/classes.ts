import { type Said, said } from '@tolvek/words';
import { belongs, groupsIn } from '../people/index.ts';
import type { Relation } from './accessTo.ts';
import type { AccessPlan, AccessRule } from './plan.ts';

/** One of the kinds of viewer that a plan tells apart, with the fewest groups that make it. */
export interface ViewerClass {
  readonly groups: readonly string[];
  readonly relation: Relation;
}

const RELATIONS: readonly Relation[] = [
  { isDesk: true, isRequester: false },
  { isDesk: false, isRequester: true },
  { isDesk: true, isRequester: true },
];

/** More kinds of viewer than this are not told apart one by one. */
const MOST = 4_096;

/** A rule’s audience, as far as some of the groups are known. */
interface Known {
  readonly out: boolean;
  /** In any of the groups so far. */
  readonly any: boolean;
  /** In all of the groups so far. */
  readonly all: boolean;
}

/**
 * The kinds of viewer that a plan tells apart, each once: every way in which its rules can hold for
 * somebody, by relation to the request. Who works here just now does not matter: people change
 * groups. Null when there are more than 4,096.
 */
export function classesOf({ rules }: Pick<AccessPlan, 'rules'>): readonly ViewerClass[] | null {
  const groups = [...new Set(rules.flatMap((rule) => groupsIn(rule.audience)))].sort();
  let states: ReadonlyMap<string, { known: readonly Known[]; groups: readonly string[] }> = new Map([
    ['', { known: rules.map(() => ({ out: false, any: false, all: true })), groups: [] }],
  ]);
  for (const group of groups) {
    const next = new Map<string, { known: readonly Known[]; groups: readonly string[] }>();
    for (const isIn of [false, true])
      for (const state of states.values()) {
        const known = rules.map((rule, index) => withGroup(rule, state.known[index] as Known, group, isIn));
        const key = known.map(({ out, any, all }) => Number(out) * 4 + Number(any) * 2 + Number(all)).join('');
        const found = next.get(key);
        const members = isIn ? [...state.groups, group] : state.groups;
        // Of all who make this kind, the one in the fewest groups stands for it.
        if (!found || found.groups.length > members.length) next.set(key, { known, groups: members });
      }
    if (next.size > MOST) return null;
    states = next;
  }
  const classes = new Map<string, ViewerClass>();
  for (const { groups: members } of states.values())
    for (const relation of RELATIONS) {
      const holds = rules.map((rule) => belongs(rule.audience, { groups: members }, relation.isRequester));
      const key = `${relation.isDesk} ${relation.isRequester} ${holds.map(Number).join('')}`;
      const found = classes.get(key);
      if (!found || found.groups.length > members.length) classes.set(key, { groups: members, relation });
    }
  return classes.size > MOST ? null : [...classes.values()];
}

/** The groups that rules about some fields name: who is told apart by them. */
export const groupsTold = ({ rules }: Pick<AccessPlan, 'rules'>, fields: readonly string[]): readonly string[] => [
  ...new Set(
    rules
      .filter((rule) => rule.fields === 'all' || rule.fields.some((key) => fields.includes(key)))
      .flatMap((rule) => groupsIn(rule.audience)),
  ),
];

function withGroup({ audience }: AccessRule, before: Known, group: string, isIn: boolean): Known {
  const { in: inside, outOf } = audience;
  return {
    out: before.out || (isIn && outOf.includes(group)),
    any: before.any || (isIn && 'anyOf' in inside && inside.anyOf.includes(group)),
    all: before.all && (isIn || !('allOf' in inside) || !inside.allOf.includes(group)),
  };
}

/** A kind of viewer in words: “somebody of the desk who is not in Site safety”. */
export function classInWords(
  { groups, relation }: ViewerClass,
  named: readonly string[],
  nameOf: (group: string) => string,
): Said {
  const out = named.filter((group) => !groups.includes(group));
  let who = relation.isDesk
    ? said('people:someoneOfDesk')
    : said(relation.isRequester ? 'people:requester' : 'people:someone');
  if (relation.isDesk && relation.isRequester) who = said('people:who.requester', { who });
  if (groups.length > 0) who = said('people:who.in', { who, groups: groups.map(nameOf) });
  return out.length > 0 ? said('people:who.out', { who, groups: out.map(nameOf) }) : who;
}
