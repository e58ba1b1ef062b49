import type { Words } from '@tolvek/words';
import { isSame } from '../own/index.ts';
import type { Merged } from './kind.ts';

/** What putting two states together has to know of their kind. */
export interface MergeRules {
  /** Lists whose items have an identity, by the setting they stand in: they are merged item by item. */
  readonly lists: Readonly<Record<string, (item: Json) => string>>;
  /** What a place is called, by the settings and items that lead there. */
  readonly nameOf: (way: readonly string[]) => Words;
}

export type Json = Readonly<Record<string, unknown>>;

export const isPlain = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

interface Merging {
  readonly lists: MergeRules['lists'];
  readonly clash: (way: readonly string[]) => void;
}

/**
 * What two people made of the same state, put together: each change of either side is kept, down to
 * the single setting. Where both changed the same thing in different ways `mine` stands, and it is
 * told.
 */
export function mergeContents<Content extends object>(
  base: Content,
  mine: Content,
  theirs: Content,
  { lists, nameOf }: MergeRules,
): Merged<Content> {
  const clashes: Words[] = [];
  const merging = { lists, clash: (way: readonly string[]): void => void clashes.push(nameOf(way)) };
  const content = mergedObject(base as Json, mine as Json, theirs as Json, [], merging);
  return { content: content as Content, clashes: [...new Set(clashes)] };
}

/** Whether a place holds translations, or those of one language. */
const isOfTranslations = (way: readonly string[]): boolean =>
  way.at(-1) === 'translations' || way.at(-2) === 'translations';

function mergedValue(base: unknown, mine: unknown, theirs: unknown, way: readonly string[], merging: Merging): unknown {
  if (isSame(mine, theirs) || isSame(base, theirs)) return mine;
  if (isSame(base, mine)) return theirs;
  const keyOf = merging.lists[way.at(-1) ?? ''];
  // A list that was not there was one of nothing.
  const was = base === undefined ? [] : base;
  if (keyOf && Array.isArray(was) && Array.isArray(mine) && Array.isArray(theirs))
    return mergedList(was as Json[], mine as Json[], theirs as Json[], keyOf, way, merging);
  // Of what was not translated, each translated texts of their own.
  const old = base === undefined && isOfTranslations(way) ? {} : base;
  if (isPlain(old) && isPlain(mine) && isPlain(theirs) && isSame(old.kind, mine.kind) && isSame(old.kind, theirs.kind))
    return mergedObject(old, mine, theirs, way, merging);
  merging.clash(way);
  return mine;
}

function mergedObject(base: Json, mine: Json, theirs: Json, way: readonly string[], merging: Merging): Json {
  const merged: Record<string, unknown> = {};
  for (const name of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const value = mergedValue(base[name], mine[name], theirs[name], [...way, name], merging);
    if (value !== undefined) merged[name] = value;
  }
  return merged;
}

function mergedList(
  base: readonly Json[],
  mine: readonly Json[],
  theirs: readonly Json[],
  keyOf: (item: Json) => string,
  way: readonly string[],
  merging: Merging,
): readonly Json[] {
  const maps = [base, mine, theirs].map((list) => new Map(list.map((item) => [keyOf(item), item])));
  const [was, my, their] = maps as [Map<string, Json>, Map<string, Json>, Map<string, Json>];
  const kept = new Map<string, Json>();
  for (const key of new Set([...my.keys(), ...their.keys()])) {
    const [b, m, t] = [was.get(key), my.get(key), their.get(key)];
    const here = [...way, key];
    if (m && t) kept.set(key, b ? (mergedValue(b, m, t, here, merging) as Json) : mergedNew(m, t, here, merging));
    else if (m && b) {
      // They took it away: it stays gone unless it was worked on here.
      if (isSame(b, m)) continue;
      merging.clash(here);
      kept.set(key, m);
    } else if (t && b) {
      if (!isSame(b, t)) {
        merging.clash(here);
        kept.set(key, t);
      }
    } else if (m ?? t) kept.set(key, (m ?? t) as Json);
  }
  return orderOf(base.map(keyOf), mine.map(keyOf), theirs.map(keyOf), new Set(kept.keys())).flatMap(
    (key): readonly Json[] => (kept.has(key) ? [kept.get(key) as Json] : []),
  );
}

/** Both added something by the same key: mine stands, and it is told unless they are the same. */
function mergedNew(mine: Json, theirs: Json, way: readonly string[], merging: Merging): Json {
  if (!isSame(mine, theirs)) merging.clash(way);
  return mine;
}

/**
 * One order for the items of both sides: that of the side that moved something, with the other’s
 * new items after those they follow.
 */
function orderOf(
  base: readonly string[],
  mine: readonly string[],
  theirs: readonly string[],
  kept: ReadonlySet<string>,
): readonly string[] {
  const common = (list: readonly string[], other: readonly string[]): readonly string[] =>
    list.filter((key) => other.includes(key));
  const iMoved = !isSame(common(mine, base), common(base, mine));
  const [first, second] = iMoved ? [mine, theirs] : [theirs, mine];
  const order = [...first];
  for (const [place, key] of second.entries()) {
    if (order.includes(key)) continue;
    const before = [...second.slice(0, place)].reverse().find((each) => order.includes(each));
    order.splice(before === undefined ? 0 : order.indexOf(before) + 1, 0, key);
  }
  return order.filter((key) => kept.has(key));
}
