import { type Said, said } from '@tolvek/words';
import type { Right } from './rights.ts';

/** Who somebody is to the desk. Groups are named by their keys. */
export interface Viewer {
  readonly personId: string;
  readonly kind: 'staff' | 'contact';
  /** What they may do, by whichever way it came to them. */
  readonly rights: readonly Right[];
  /** What they may do in registers where that is otherwise, by the registers’ ids. */
  readonly otherwise?: Readonly<Record<string, readonly Right[]>>;
  readonly groups: readonly string[];
  /** The holders of seats whose place they take today, as words: people who are away, and groups that all are away from. */
  readonly standsIn?: readonly string[];
}

/**
 * Who: everyone or groups to be in, and groups to be out of. Out wins over in; an audience with
 * nothing to be in is nobody. `requester` speaks of the relation to one request: whose request it
 * is counts as in, or as out.
 */
export interface Audience {
  readonly in:
    | { readonly everyone: true }
    | { readonly anyOf: readonly string[] }
    | { readonly allOf: readonly string[] };
  readonly outOf: readonly string[];
  readonly requester?: 'in' | 'out';
}

/**
 * Whether a viewer belongs to an audience. `isRequester`: the request in question is the viewer's
 * own.
 */
export function belongs(audience: Audience, viewer: Pick<Viewer, 'groups'>, isRequester: boolean): boolean {
  if (audience.outOf.some((group) => viewer.groups.includes(group))) return false;
  if (isRequester && audience.requester) return audience.requester === 'in';
  const { in: inside } = audience;
  if ('everyone' in inside) return true;
  if ('anyOf' in inside) return inside.anyOf.some((group) => viewer.groups.includes(group));
  return inside.allOf.length > 0 && inside.allOf.every((group) => viewer.groups.includes(group));
}

/** An audience as a sentence: “everyone except Site safety and the requester”. */
export function audienceInWords(audience: Audience, nameOf: (group: string) => string): Said {
  const requester = said('people:requester');
  const who = insideInWords(audience.in, nameOf);
  const plus = audience.requester !== 'in' ? who : who === null ? requester : said('people:andRequester', { who });
  const groups = [...audience.outOf.map(nameOf), ...(audience.requester === 'out' ? [requester] : [])];
  const some = plus ?? said('people:nobody');
  return groups.length > 0 ? said('people:exceptGroups', { who: some, groups }) : some;
}

function insideInWords(inside: Audience['in'], nameOf: (group: string) => string): Said | null {
  if ('everyone' in inside) return said('people:everyone');
  const groups = ('anyOf' in inside ? inside.anyOf : inside.allOf).map(nameOf);
  if (groups.length === 0) return null;
  return 'anyOf' in inside ? said('people:anyOf', { groups }) : said('people:allOf', { groups });
}

/** The keys of the groups that an audience names. */
export const groupsIn = ({ in: inside, outOf }: Audience): readonly string[] => [
  ...outOf,
  ...('anyOf' in inside ? inside.anyOf : 'allOf' in inside ? inside.allOf : []),
];

/** The same audience with other groups in the place of some. */
export function inPlace(audience: Audience, groups: Readonly<Record<string, string>>): Audience {
  const { in: inside, outOf } = audience;
  const placed = (keys: readonly string[]): readonly string[] => [...new Set(keys.map((key) => groups[key] ?? key))];
  return {
    ...audience,
    in:
      'anyOf' in inside
        ? { anyOf: placed(inside.anyOf) }
        : 'allOf' in inside
          ? { allOf: placed(inside.allOf) }
          : inside,
    outOf: placed(outOf),
  };
}
