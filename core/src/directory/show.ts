import { said } from '@tolvek/words';
import {
  type Attribute,
  holderOf,
  isRecord,
  type Json,
  type Resource,
  type ResourceType,
  rootOf,
  valuesOf,
} from './attributes.ts';
import { type Place, placeOf } from './path.ts';
import { DirectoryRefusal } from './refusal.ts';

/** What is asked for of resources: only some attributes, or all but some. Paths as RFC 7644 §3.10 writes them. */
export interface Wanted {
  readonly only: readonly string[];
  readonly without: readonly string[];
}

export const ALL: Wanted = { only: [], without: [] };

const isAlways = (attribute: Attribute): boolean => attribute.returned === 'always';

/** Whether some of the places cover an attribute, or a part of it. */
const covers = (
  places: readonly Place[],
  extension: string | null,
  attribute: Attribute,
  sub: Attribute | null,
): boolean =>
  places.some(
    (place) =>
      place.extension === extension &&
      (place.attribute === null || (place.attribute === attribute && (place.sub === null || place.sub === sub))),
  );

/** Of a value with parts, those that are wanted. */
const cut = (value: Json, keeps: (part: string) => boolean): Json => {
  if (Array.isArray(value)) return (value as readonly Json[]).map((each) => cut(each, keeps));
  return isRecord(value) ? Object.fromEntries(Object.entries(value).filter(([part]) => keeps(part))) : value;
};

/** Of the attributes of a schema, those that are wanted. */
function shownOf(
  holder: Resource,
  attributes: readonly Attribute[],
  extension: string | null,
  { only, without }: { readonly only: readonly Place[] | null; readonly without: readonly Place[] },
): Resource {
  const shown: Record<string, Json> = {};
  for (const attribute of attributes) {
    const value = holder[attribute.name];
    if (value === undefined) continue;
    const isShown = (sub: Attribute | null): boolean =>
      (only === null || covers(only, extension, attribute, sub)) && !covers(without, extension, attribute, sub);
    const parts = attribute.subAttributes ?? [];
    if (isAlways(attribute) || (isShown(null) && parts.every(isShown))) shown[attribute.name] = value;
    else {
      const names = new Set(parts.filter(isShown).map(({ name }) => name));
      if (names.size > 0) shown[attribute.name] = cut(value, (part) => names.has(part));
    }
  }
  return shown;
}

/** A resource as far as it is wanted. Paths that no schema has ask for nothing. */
export function shown(type: ResourceType, resource: Resource, { only, without }: Wanted): Resource {
  if (only.length === 0 && without.length === 0) return resource;
  const places = (paths: readonly string[]): readonly Place[] => paths.flatMap((path) => placeOf(type, path) ?? []);
  const wanted = { only: only.length > 0 ? places(only) : null, without: places(without) };
  const rest = shownOf(resource, rootOf(type), null, wanted);
  for (const { id, attributes } of type.extensions) {
    const of = shownOf(holderOf(resource, id), attributes, id, wanted);
    if (Object.keys(of).length > 0) Object.assign(rest, { [id]: of });
  }
  return { schemas: resource.schemas ?? [], ...rest };
}

/** What resources are put in order by: of several values the first one (RFC 7644 §3.4.2.3). */
function sortValue({ extension, attribute, sub }: Place, resource: Resource): string | null {
  if (!attribute) return null;
  const values = valuesOf(holderOf(resource, extension)[attribute.name]);
  const first = values.find((value) => isRecord(value) && value.primary === true) ?? values[0];
  const part = isRecord(first) ? first[sub?.name ?? 'value'] : first;
  if (part === undefined || part === null) return null;
  const text = String(part);
  return (sub ?? attribute).caseExact ? text : text.toLowerCase();
}

/**
 * The order of resources by an attribute; who has nothing there comes last, or first where it is turned round.
 *
 * @throws DirectoryRefusal 400 `invalidPath`
 */
export function orderBy(
  type: ResourceType,
  by: string,
  isFalling: boolean,
): (one: Resource, other: Resource) => number {
  const place = placeOf(type, by);
  if (!place?.attribute) throw new DirectoryRefusal(400, 'invalidPath', said('scim:noSuchPath', { path: by }));
  const turn = isFalling ? -1 : 1;
  return (one, other) => {
    const [mine, theirs] = [sortValue(place, one), sortValue(place, other)];
    if (mine === theirs) return 0;
    if (mine === null || theirs === null) return mine === null ? turn : -turn;
    return mine < theirs ? -turn : turn;
  };
}
