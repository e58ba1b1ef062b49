/**
 * What people call the place of a design that a path of the contract leads to (`draft.fields.0.label`): the
 * label, name or title of the innermost thing on the way that has one. Null where nothing has.
 */
export function placeIn(design: object, path: string): string | null {
  let found: string | null = null;
  let at: unknown = design;
  for (const step of path.split('.').slice(1)) {
    at = typeof at === 'object' && at !== null ? (at as Readonly<Record<string, unknown>>)[step] : undefined;
    found = calledBy(at) ?? found;
  }
  return found;
}

const NAMES = ['label', 'name', 'title', 'asks'] as const;
/** Longer names are shortened: they may be what is wrong. */
const LONGEST = 40;

function calledBy(thing: unknown): string | null {
  if (typeof thing !== 'object' || thing === null) return null;
  for (const name of NAMES) {
    const called = (thing as Readonly<Record<string, unknown>>)[name];
    if (typeof called === 'string' && called.trim() !== '')
      return called.length > LONGEST ? `${called.slice(0, LONGEST)} …` : called;
  }
  return null;
}
