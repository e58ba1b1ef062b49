import { type FormDesign, partKey } from './design.ts';
import { isSame } from './same.ts';
import { partName } from './words.ts';

export interface Merged {
  readonly design: FormDesign;
  /** What both changed, each in another way; the first side’s change stands in `design`. */
  readonly clashes: readonly string[];
}

type Json = Readonly<Record<string, unknown>>;

const isPlain = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Lists whose items have a key, so that they are merged item by item. */
const KEYED: Readonly<Record<string, (item: Json) => string>> = {
  fields: (item) => String(item.key),
  parts: (item) => partKey(item as never),
  rules: (item) => String(item.id),
  unique: (item) => String(item.id),
  rows: (item) => String(item.id),
  columns: (item) => String(item.id ?? item.key),
  options: (item) => String(item.key),
};

/**
 * What two people made of the same draft, put together: each change of either side is kept, down to
 * the single setting of a field. Where both changed the same thing in different ways `mine` stands,
 * and it is told.
 */
export function mergeDesigns(base: FormDesign, mine: FormDesign, theirs: FormDesign): Merged {
  const clashes: string[] = [];
  const clash = (way: readonly string[]): void => void clashes.push(nameOf(way, mine, theirs));
  const design = mergedObject(base as unknown as Json, mine as unknown as Json, theirs as unknown as Json, [], clash);
  return { design: design as unknown as FormDesign, clashes: [...new Set(clashes)] };
}

type Clash = (way: readonly string[]) => void;

function mergedValue(base: unknown, mine: unknown, theirs: unknown, way: readonly string[], clash: Clash): unknown {
  if (isSame(mine, theirs) || isSame(base, theirs)) return mine;
  if (isSame(base, mine)) return theirs;
  const keyOf = KEYED[way.at(-1) ?? ''];
  if (keyOf && Array.isArray(base) && Array.isArray(mine) && Array.isArray(theirs))
    return mergedList(base as Json[], mine as Json[], theirs as Json[], keyOf, way, clash);
  if (
    isPlain(base) &&
    isPlain(mine) &&
    isPlain(theirs) &&
    isSame(base.kind, mine.kind) &&
    isSame(base.kind, theirs.kind)
  )
    return mergedObject(base, mine, theirs, way, clash);
  clash(way);
  return mine;
}

function mergedObject(base: Json, mine: Json, theirs: Json, way: readonly string[], clash: Clash): Json {
  const merged: Record<string, unknown> = {};
  for (const name of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const value = mergedValue(base[name], mine[name], theirs[name], [...way, name], clash);
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
  clash: Clash,
): readonly Json[] {
  const maps = [base, mine, theirs].map((list) => new Map(list.map((item) => [keyOf(item), item])));
  const [was, my, their] = maps as [Map<string, Json>, Map<string, Json>, Map<string, Json>];
  const kept = new Map<string, Json>();
  for (const key of new Set([...my.keys(), ...their.keys()])) {
    const [b, m, t] = [was.get(key), my.get(key), their.get(key)];
    const here = [...way, key];
    if (m && t) kept.set(key, b ? (mergedValue(b, m, t, here, clash) as Json) : mergedNew(m, t, here, clash));
    else if (m && b) {
      // They took it away: it stays gone unless it was worked on here.
      if (isSame(b, m)) continue;
      clash(here);
      kept.set(key, m);
    } else if (t && b) {
      if (!isSame(b, t)) {
        clash(here);
        kept.set(key, t);
      }
    } else if (m ?? t) kept.set(key, (m ?? t) as Json);
  }
  return orderOf(base.map(keyOf), mine.map(keyOf), theirs.map(keyOf), new Set(kept.keys())).flatMap(
    (key): readonly Json[] => (kept.has(key) ? [kept.get(key) as Json] : []),
  );
}

/** Both added something by the same key: mine stands, and it is told unless they are the same. */
function mergedNew(mine: Json, theirs: Json, way: readonly string[], clash: Clash): Json {
  if (!isSame(mine, theirs)) clash(way);
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

/** What a place in a design is called. */
function nameOf(way: readonly string[], mine: FormDesign, theirs: FormDesign): string {
  const [list = '', key = '', setting] = way;
  const names: Readonly<Record<string, string>> = {
    title: 'the title',
    intro: 'the introduction',
    subject: 'what requests are called',
    approval: 'the approval path',
    deadline: 'the deadline plan',
    routing: 'the routing table',
  };
  const label = (): string => {
    const design =
      mine.fields.some((field) => field.key === key) || mine.parts.some((part) => partKey(part) === key)
        ? mine
        : theirs;
    return partName(design, key);
  };
  if (list === 'fields' || list === 'parts')
    return `“${label()}”${setting ? ` (${SETTINGS[setting] ?? setting})` : ''}`;
  if (list === 'rules')
    return `the rule “${[...mine.rules, ...theirs.rules].find((rule) => rule.id === key)?.name ?? key}”`;
  return names[list] ?? list;
}

const SETTINGS: Readonly<Record<string, string>> = {
  label: 'its name',
  type: 'its options or limits',
  asks: 'its question',
  help: 'its help',
  required: 'whether it is required',
  preset: 'its default',
  formula: 'its formula',
};
