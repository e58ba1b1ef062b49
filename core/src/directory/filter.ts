import { said } from '@tolvek/words';
import { type Compare, type Filter, parse } from 'scim2-parse-filter';
import {
  type Attribute,
  holderOf,
  isRecord,
  type Json,
  named,
  type Resource,
  type ResourceType,
  valuesOf,
} from './attributes.ts';
import { type Place, placeOf } from './path.ts';
import { DirectoryRefusal } from './refusal.ts';

type Test = (resource: Resource) => boolean;

/** A filter that was read: who matches it, and what they hold for certain, by attribute in small letters. */
export interface ReadFilter {
  readonly matches: Test;
  /** What whoever matches has, word by word: lets a store look them up, and need not be all that is asked. */
  readonly certain: ReadonlyMap<string, string>;
  /** The same in the attributes’ own names, where the filter asks for nothing else; else null. */
  readonly fixed: Resource | null;
}

const wrongFilter = (filter: string): DirectoryRefusal =>
  new DirectoryRefusal(400, 'invalidFilter', said('scim:wrongFilter', { filter }));

/** What stands at an attribute of something: the values of a part of all its values, where a part is asked for. */
function readAt(holder: Resource, attribute: Attribute, sub: Attribute | null): readonly Json[] {
  const values = valuesOf(holder[attribute.name]);
  return sub === null ? values : values.flatMap((value) => (isRecord(value) ? valuesOf(value[sub.name]) : []));
}

/** What is compared of a value with parts: its `value`, if it has one (RFC 7643 §2.4). */
function comparedOf({ attribute, sub }: { readonly attribute: Attribute; readonly sub: Attribute | null }) {
  const target = sub ?? attribute;
  if (target.type !== 'complex') return { sub, target };
  const value = named(target.subAttributes ?? [], 'value');
  return sub === null && value ? { sub: value, target: value } : null;
}

const isAnything = (value: Json): boolean =>
  isRecord(value) ? Object.values(value).some(isAnything) : value !== null && value !== '';

const folded = (text: string, { caseExact }: Attribute): string => (caseExact ? text : text.toLowerCase());

const ORDER: Readonly<Record<string, (compared: number) => boolean>> = {
  gt: (compared) => compared > 0,
  ge: (compared) => compared >= 0,
  lt: (compared) => compared < 0,
  le: (compared) => compared <= 0,
};

/** Less than, equal to or greater than zero; null where two values have no order. */
function compared(value: Json, with_: string, attribute: Attribute): number | null {
  if (typeof value !== 'string') return null;
  if (attribute.type === 'dateTime') {
    const gap = Date.parse(value) - Date.parse(with_);
    return Number.isNaN(gap) ? null : gap;
  }
  const [mine, theirs] = [folded(value, attribute), folded(with_, attribute)];
  return mine < theirs ? -1 : Number(mine > theirs);
}

/** How one value is compared; null where the operator does not go with it. */
function comparing({ op, compValue }: Compare, target: Attribute): ((value: Json) => boolean) | null {
  if (target.type === 'boolean')
    return typeof compValue === 'boolean' && (op === 'eq' || op === 'ne') ? (value) => value === compValue : null;
  if (typeof compValue !== 'string') return null;
  const wanted = folded(compValue, target);
  const ofText =
    (test: (text: string) => boolean) =>
    (value: Json): boolean =>
      typeof value === 'string' && test(folded(value, target));
  if (op === 'eq' || op === 'ne')
    return target.type === 'dateTime'
      ? (value) => compared(value, compValue, target) === 0
      : ofText((text) => text === wanted);
  if (op === 'co') return ofText((text) => text.includes(wanted));
  if (op === 'sw') return ofText((text) => text.startsWith(wanted));
  if (op === 'ew') return ofText((text) => text.endsWith(wanted));
  const order = ORDER[op];
  return order
    ? (value) => {
        const found = compared(value, compValue, target);
        return found !== null && order(found);
      }
    : null;
}

const STRING = /"(?:[^"\\]|\\.)*"/gs;

/**
 * A filter for the parser, which reads the structure only: it has ways of its own with backslashes, and knows no name
 * that begins with a dollar. Each text stands as its number, and is read as JSON says.
 */
function forParser(text: string): { readonly plain: string; readonly texts: readonly string[] } {
  const texts: string[] = [];
  const plain = text.replace(STRING, (string) => `"${texts.push(JSON.parse(string) as string) - 1}"`);
  return { plain: plain.replace(/(^|[\s([.])\$ref\b/gi, '$1_ref'), texts };
}

const nameInFilter = (path: string): string => path.replace(/\b_ref$/i, '$ref');

/** Where attributes are looked up: at a resource, or among the parts of one of several values. */
type Find = (path: string) => Place | null;

const NOTHING: ReadonlyMap<string, string> = new Map();

/** A filter of which nothing is certain but whether somebody matches it. */
const only = (matches: Test): ReadFilter => ({ matches, certain: NOTHING, fixed: null });

function compile(filter: Filter, find: Find, whole: string): ReadFilter {
  const compiled = (each: Filter): ReadFilter => compile(each, find, whole);
  switch (filter.op) {
    case 'and': {
      const all = filter.filters.map(compiled);
      const fixed = all.every((each) => each.fixed !== null)
        ? Object.assign({}, ...all.map((each) => each.fixed))
        : null;
      return {
        matches: (resource) => all.every((each) => each.matches(resource)),
        certain: new Map(all.flatMap((each) => [...each.certain])),
        fixed,
      };
    }
    case 'or': {
      const all = filter.filters.map(compiled);
      return only((resource) => all.some((each) => each.matches(resource)));
    }
    case 'not': {
      const { matches } = compiled(filter.filter);
      return only((resource) => !matches(resource));
    }
    case '[]': {
      const place = find(nameInFilter(filter.attrPath));
      const { attribute } = place ?? { attribute: null };
      if (!place || !attribute?.multiValued || place.sub !== null) throw wrongFilter(whole);
      const { matches } = compile(filter.valFilter, amongParts(attribute), whole);
      return only((resource) =>
        valuesOf(holderOf(resource, place.extension)[attribute.name]).some(
          (value) => isRecord(value) && matches(value),
        ),
      );
    }
    default: {
      const place = find(nameInFilter(filter.attrPath));
      if (!place?.attribute) throw wrongFilter(whole);
      return comparison(filter, { ...place, attribute: place.attribute }, whole);
    }
  }
}

/** Attributes among the parts of one of several values. */
const amongParts =
  (attribute: Attribute): Find =>
  (path) => {
    const part = named(attribute.subAttributes ?? [], path);
    return part ? { extension: null, attribute: part, sub: null } : null;
  };

function comparison(
  filter: Exclude<Filter, { op: 'and' | 'or' | 'not' | '[]' }>,
  place: Place & { readonly attribute: Attribute },
  whole: string,
): ReadFilter {
  const { extension, attribute, sub } = place;
  const all = (resource: Resource, of: Attribute | null): readonly Json[] =>
    readAt(holderOf(resource, extension), attribute, of);
  const isThere: Test = (resource) => all(resource, sub).some(isAnything);
  if (filter.op === 'pr') return only(isThere);
  const compare = filter as Compare;
  // What has no value is what is null (RFC 7643 §2.5).
  if (compare.compValue === null && (compare.op === 'eq' || compare.op === 'ne'))
    return only(compare.op === 'ne' ? isThere : (resource) => !isThere(resource));
  const found = comparedOf(place);
  const matches = found && comparing(compare, found.target);
  if (!found || !matches) throw wrongFilter(whole);
  const one: Test = (resource) => all(resource, found.sub).some(matches);
  if (compare.op === 'ne') return only((resource) => !one(resource));
  if (compare.op !== 'eq') return only(one);
  const key = [extension, attribute.name, found.sub?.name].filter(Boolean).join('.').toLowerCase();
  const { compValue } = compare;
  return {
    matches: one,
    certain: typeof compValue === 'string' ? new Map([[key, compValue]]) : NOTHING,
    fixed: extension === null && sub === null && found.sub === null ? { [attribute.name]: compValue as Json } : null,
  };
}

function parsed(text: string): Filter {
  try {
    const { plain, texts } = forParser(text);
    return withTexts(parse(plain), texts);
  } catch {
    throw wrongFilter(text);
  }
}

/** The filter with its texts in the place of their numbers. */
function withTexts(filter: Filter, texts: readonly string[]): Filter {
  if ('filters' in filter) return { ...filter, filters: filter.filters.map((each) => withTexts(each, texts)) };
  if ('filter' in filter) return { ...filter, filter: withTexts(filter.filter, texts) };
  if ('valFilter' in filter) return { ...filter, valFilter: withTexts(filter.valFilter, texts) };
  if (!('compValue' in filter) || typeof filter.compValue !== 'string') return filter;
  return { ...filter, compValue: texts[Number(filter.compValue)] ?? '' };
}

/**
 * Reads a filter (RFC 7644 §3.4.2.2). Texts are compared as the schema says: capitals count where it calls them exact.
 *
 * @throws DirectoryRefusal 400 `invalidFilter` for what is no filter, names what no schema has, or compares what has
 *   no such comparison.
 */
export const readFilter = (type: ResourceType, text: string): ReadFilter =>
  compile(parsed(text), (path) => placeOf(type, path), text);

/** Reads a filter on the parts of one of several values: what stands between the brackets of a path. */
export const readPartFilter = (attribute: Attribute, text: string): ReadFilter =>
  compile(parsed(text), amongParts(attribute), text);
