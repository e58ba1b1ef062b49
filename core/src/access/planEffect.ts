import { belongs, type Viewer } from '../people/index.ts';
import type { Relation } from './accessTo.ts';
import type { AccessLevel } from './plan.ts';
import { type LevelChange, levelChanges } from './planChange.ts';
import type { Protection } from './protection.ts';
import type { Gathered } from './relation.ts';

/** Somebody, as far as rules tell people apart, and who they are to the desk: asked only where something changes. */
export interface Concerned {
  readonly personId: string;
  readonly groups: readonly string[];
  readonly viewer: () => Viewer;
}

/** What changes for somebody: each field with its levels before and after, and on how many requests. */
export interface EffectFor {
  readonly personId: string;
  readonly changes: readonly (LevelChange & { readonly requests: number })[];
}

/** What protects requests that came by a release, before and after. */
export type Protections = (release: string) => readonly [Protection, Protection];

const RELATIONS: readonly Relation[] = [
  { isDesk: true, isRequester: false },
  { isDesk: true, isRequester: false, onlyReads: true },
  { isDesk: false, isRequester: true },
  { isDesk: true, isRequester: true },
  { isDesk: true, isRequester: true, onlyReads: true },
];

/**
 * What a plan would change, exactly: for everybody who has to do with a request on which something becomes otherwise.
 * Whom neither plan tells apart from others by a rule is looked at once for all of them, and people for whom nothing
 * can change are not held against requests.
 */
export function planEffect(
  people: readonly Concerned[],
  { releases, standings }: Gathered,
  protections: Protections,
): readonly EffectFor[] {
  const rules = releases.flatMap((release) => protections(release).flatMap(({ plan }) => plan.rules));
  const told = [...new Set(rules)];
  const kinds = new Map<string, ReadonlyMap<string, readonly LevelChange[]>>();
  /** What changes for those of whom the same rules hold, by release and relation; nothing where nothing does. */
  const changesFor = ({ personId, groups }: Concerned): ReadonlyMap<string, readonly LevelChange[]> => {
    const viewer: Viewer = { personId, groups, kind: 'staff', rights: [] };
    const kind = [false, true]
      .flatMap((own) => told.map((rule) => (belongs(rule.audience, viewer, own) ? 1 : 0)))
      .join('');
    const found = kinds.get(kind);
    if (found) return found;
    const changes = new Map(
      releases.flatMap((release) =>
        RELATIONS.flatMap((relation) => {
          const each = levelChanges(...protections(release), viewer, relation);
          return each.length > 0 ? [[keyOf(release, relation), each] as const] : [];
        }),
      ),
    );
    kinds.set(kind, changes);
    return changes;
  };
  return people.flatMap((person) => {
    const changes = changesFor(person);
    if (changes.size === 0) return [];
    const viewer = person.viewer();
    const sums = new Map<string, LevelChange & { requests: number }>();
    for (const { release, relation, n } of standings(viewer))
      for (const change of changes.get(keyOf(release, relation)) ?? []) {
        const which = nameOf(change.field.key, change.before, change.after);
        const known = sums.get(which);
        if (known) known.requests += n;
        else sums.set(which, { ...change, requests: n });
      }
    return sums.size > 0 ? [{ personId: person.personId, changes: [...sums.values()] }] : [];
  });
}

const keyOf = (release: string, { isDesk, isRequester, onlyReads = false }: Relation): string =>
  `${release} ${Number(isDesk)}${Number(isRequester)}${Number(onlyReads)}`;

const nameOf = (field: string, before: AccessLevel, after: AccessLevel): string => `${field} ${before} ${after}`;
