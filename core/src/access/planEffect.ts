import { belongs, type Viewer } from '../people/index.ts';
import type { PartyRelation } from '../register/index.ts';
import type { Relation } from './accessTo.ts';
import { levelIn, type RequestMoment } from './circumstance.ts';
import { moversNamed, waysToStand } from './classes.ts';
import { ACTIVITIES, type Activity, leavesToBuilders } from './plan.ts';
import { type LevelChange, levelChanges } from './planChange.ts';
import type { Protection } from './protection.ts';
import { type Gathered, readersMeaning } from './relation.ts';

/** Somebody, as far as rules tell people apart, and who they are to the desk: asked only where something changes. */
export interface Concerned {
  readonly personId: string;
  readonly groups: readonly string[];
  readonly kind?: Viewer['kind'];
  readonly meets?: readonly string[];
  readonly viewer: () => Viewer;
}

/** What changes for somebody: each field with its levels before and after, and on how many requests. */
export interface EffectFor {
  readonly personId: string;
  readonly changes: readonly (ActiveChange & { readonly requests: number })[];
}

/** What becomes otherwise in one of the things that are done with a request; working on it, as a rule. */
interface ActiveChange extends LevelChange {
  readonly activity: Activity;
}

/** What protects requests of a sort, before and after, and what of them rules hang on. */
export interface Protections {
  readonly before: Protection;
  readonly after: Protection;
  readonly at: RequestMoment;
}

/** How somebody can stand to a request, beside what else they are to it. */
const RELATIONS: readonly Relation[] = [
  { isDesk: true, isRequester: false },
  { isDesk: true, isRequester: false, onlyReads: true },
  { isDesk: false, isRequester: true },
  { isDesk: true, isRequester: true },
  { isDesk: true, isRequester: true, onlyReads: true },
  { isDesk: false, isRequester: false, calledIn: true },
  { isDesk: false, isRequester: false, calledIn: true, onlyReads: true },
];
/** Somebody who has nothing to do with a request, unless a plan lets them read it by what stands in it. */
const NONE: Relation = { isDesk: false, isRequester: false };
/** The same, for plans that leave some fields to whoever builds forms. */
const WITH_BUILDERS: readonly Relation[] = [
  ...RELATIONS,
  ...RELATIONS.flatMap((relation) => (relation.isDesk ? [{ ...relation, builds: true as const }] : [])),
];

/**
 * What a plan would change, exactly: for everybody who has to do with a request on which something becomes otherwise.
 * Whom neither plan tells apart from others by a rule is looked at once for all of them, and people for whom nothing
 * can change are not held against requests. Sorts of requests for which every rule says the same are one. What becomes
 * otherwise in something else than working on a request is told where it is not the same there.
 */
export function planEffect(
  people: readonly Concerned[],
  { sorts, standings }: Gathered,
  protections: (sort: string) => Protections,
): readonly EffectFor[] {
  const told = [
    ...new Set(
      sorts.flatMap((sort) => [protections(sort).before, protections(sort).after].flatMap(({ plan }) => plan.rules)),
    ),
  ];
  const isApart = told.some(({ exceptions = [] }) => exceptions.some(({ activities }) => activities));
  const activities = isApart ? ACTIVITIES : ['working' as const];
  const alike = new Map<string, string>();
  const kindOf = new Map<string, string>();
  for (const sort of sorts) {
    const { before, after, at } = protections(sort);
    const said = [before, after].map((each) => [
      numberOf(each),
      each.plan.readers?.map(({ when }) => at.holds(when)),
      ...activities.map((activity) => each.plan.rules.map((rule) => levelIn(rule, { ...at, activity }))),
    ]);
    const name = JSON.stringify(said);
    const first = alike.get(name) ?? sort;
    alike.set(name, first);
    kindOf.set(sort, first);
  }
  const differing = [...alike.values()];
  const named = moversNamed({ rules: told });
  const both = [...new Set(sorts.flatMap((sort) => [protections(sort).before, protections(sort).after]))];
  const builders = both.some(({ plan, fields }) => leavesToBuilders(plan, fields));
  const plans = [...new Set(both.map(({ plan }) => plan))];
  const readers = plans.flatMap((plan) => plan.readers ?? []);
  const relations = waysToStand({ rules: told }).flatMap((as) =>
    [...(builders ? WITH_BUILDERS : RELATIONS), ...(readers.length > 0 ? [NONE] : [])].map((relation) => ({
      ...relation,
      as,
    })),
  );
  // Nobody from outside works at the desk, and nobody of the staff is called in.
  const [outside, inside] = [relations.filter(({ isDesk }) => !isDesk), relations.filter((each) => !each.calledIn)];
  const keyOf = (sort: string, relation: Relation): string => relationKey(sort, relation, named, builders);
  const kinds = new Map<string, ReadonlyMap<string, readonly ActiveChange[]>>();
  /** What changes for those of whom the same rules hold, by sort and relation; nothing where nothing does. */
  const changesFor = ({
    personId,
    groups,
    kind: of = 'staff',
    meets = [],
  }: Concerned): ReadonlyMap<string, readonly ActiveChange[]> => {
    const viewer: Viewer = { personId, groups, kind: of, rights: [], meets };
    const reads = readersMeaning(readers, viewer);
    const theirs = of === 'contact' ? outside : inside;
    const kind = [
      ...theirs.flatMap((relation) => told.map((rule) => (belongs(rule.audience, viewer, relation) ? 1 : 0))),
      ...readers.map((reader) => (reads.includes(reader) ? 1 : 0)),
      of,
    ].join('');
    const found = kinds.get(kind);
    if (found) return found;
    const changes = new Map(
      differing.flatMap((sort) => {
        const { before, after, at } = protections(sort);
        return theirs.flatMap((relation) => {
          const working = levelChanges(before, after, viewer, relation, at);
          const each = activities.flatMap((activity): readonly ActiveChange[] => {
            if (activity === 'working') return working.map((change) => ({ ...change, activity }));
            return levelChanges(before, after, viewer, relation, at, activity)
              .filter((change) => !working.some((one) => isSameChange(one, change)))
              .map((change) => ({ ...change, activity }));
          });
          return each.length > 0 ? [[keyOf(sort, relation), each] as const] : [];
        });
      }),
    );
    kinds.set(kind, changes);
    return changes;
  };
  return people.flatMap((person) => {
    const changes = changesFor(person);
    if (changes.size === 0) return [];
    const viewer = person.viewer();
    // Of how many requests the same changes: rules tell fewer kinds of them apart than there are.
    const alikeIn = new Map<readonly ActiveChange[], number>();
    for (const { sort, relation, n } of standings(viewer)) {
      const each = changes.get(keyOf(kindOf.get(sort) ?? sort, relation));
      if (each) alikeIn.set(each, (alikeIn.get(each) ?? 0) + n);
    }
    const sums = new Map<string, ActiveChange & { requests: number }>();
    for (const [each, n] of alikeIn)
      for (const change of each) {
        const which = `${change.activity} ${change.field.key} ${change.before} ${change.after}`;
        const known = sums.get(which);
        if (known) known.requests += n;
        else sums.set(which, { ...change, requests: n });
      }
    return sums.size > 0 ? [{ personId: person.personId, changes: [...sums.values()] }] : [];
  });
}

const numbers = new WeakMap<Protection, number>();
let counted = 0;

/** A number for a protection: another one for each. */
function numberOf(protection: Protection): number {
  const known = numbers.get(protection) ?? ++counted;
  numbers.set(protection, known);
  return known;
}

/** A relation as far as rules tell it apart. `named`: what they name of what somebody can be to a request. */
const relationKey = (
  sort: string,
  { isDesk, isRequester, onlyReads = false, calledIn = false, builds = false, as = [] }: Relation,
  named: readonly PartyRelation[],
  builders: boolean,
): string =>
  `${sort} ${Number(isDesk)}${Number(isRequester)}${Number(onlyReads)}${Number(calledIn)}${Number(builders && builds)} ${named.filter((each) => as.includes(each)).join()}`;

const isSameChange = (one: LevelChange, other: LevelChange): boolean =>
  one.field === other.field && one.before === other.before && one.after === other.after;
