import { z } from 'zod';
import * as door from '../door/shapes.ts';
import * as form from '../form/shapes.ts';
import * as intake from '../intake/shapes.ts';
import * as notice from '../notice/shapes.ts';
import * as people from '../people/shapes.ts';
import * as register from '../register/shapes.ts';
import * as view from '../view/shapes.ts';
import * as problem from '../wire/problem.ts';
import * as wire from '../wire/shapes.ts';

type Json = Readonly<Record<string, unknown>>;

const PLACE = '#/components/schemas/';
/** Where the library puts what is used more than once and has no name of its own. */
const SHARED = `${PLACE}__shared#/$defs/`;

/** What the library calls `schema7` is `Part7` here. */
const partId = (name: string, ending: string): string => `${name.replace(/^schema/, 'Part')}${ending}`;

const capital = (name: string): string => name.charAt(0).toUpperCase() + name.slice(1);

/** What schemas are called that are exported under a name: `sheet` is `Sheet`. */
const NAMES = new Map<unknown, string>(
  Object.entries({
    ...wire,
    ...problem,
    ...people,
    ...register,
    ...door,
    ...form,
    ...intake,
    ...view,
    ...notice,
  }).flatMap(([name, schema]) => (schema instanceof z.ZodType ? [[schema as unknown, capital(name)] as const] : [])),
);

/**
 * JSON Schemas for an OpenAPI document: each once, and pointed to wherever it is used.
 *
 * @param io `input`: what is sent; `output`: what is answered. The two differ where something may be
 *   left out, so that each has its own set, told apart by the ending of their names.
 */
export function componentsOf(
  schemas: ReadonlyMap<string, z.ZodType>,
  io: 'input' | 'output',
): { readonly refs: ReadonlyMap<string, Json>; readonly components: Readonly<Record<string, Json>> } {
  const ending = io === 'input' ? 'Sent' : '';
  const registry = z.registry<{ id: string }>();
  const ids = new Map<string, string>();
  for (const [key, schema] of schemas) {
    const known = registry.get(schema)?.id;
    const id = known ?? `${NAMES.get(schema) ?? capital(key)}${ending}`;
    if (!known) registry.add(schema, { id });
    ids.set(key, id);
  }
  for (const [schema, name] of NAMES)
    if (!registry.has(schema as z.ZodType)) registry.add(schema as z.ZodType, { id: `${name}${ending}` });
  const { schemas: all } = z.toJSONSchema(registry, {
    ...{ io, unrepresentable: 'any', cycles: 'ref', reused: 'ref', uri: (id) => `${PLACE}${id}` },
  }) as unknown as { readonly schemas: Readonly<Record<string, Json>> };
  const { __shared: shared, ...rest } = all;
  const parts = Object.entries((shared?.$defs ?? {}) as Readonly<Record<string, Json>>).map(
    ([name, schema]) => [partId(name, ending), schema] as const,
  );
  const found: Record<string, Json> = Object.fromEntries([...Object.entries(rest), ...parts]);
  const components = Object.fromEntries(
    Object.entries(found).map(([id, schema]) => [id, pointed(schema, ending) as Json]),
  );
  return {
    components: onlyUsed(components, [...ids.values()]),
    refs: new Map([...ids].map(([key, id]) => [key, { $ref: `${PLACE}${id}` }])),
  };
}

/**
 * A schema whose pointers lead to components, without what only a schema of its own says; that a list is
 * not changed in our code would read as that it can’t be sent, and the bounds of whole numbers say nothing.
 */
function pointed(value: unknown, ending: string): unknown {
  if (Array.isArray(value)) return value.map((each) => pointed(each, ending));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, each]) => {
      if (key === '$schema' || key === '$id' || (key === 'readOnly' && each === true)) return [];
      if ((key === 'minimum' || key === 'maximum') && Math.abs(each as number) === Number.MAX_SAFE_INTEGER) return [];
      if (key === '$ref' && typeof each === 'string' && each.startsWith(SHARED))
        return [[key, `${PLACE}${partId(each.slice(SHARED.length), ending)}`]];
      return [[key, pointed(each, ending)]];
    }),
  );
}

/** The components that are reached from some, all others left out. */
function onlyUsed(components: Readonly<Record<string, Json>>, from: readonly string[]): Readonly<Record<string, Json>> {
  const used = new Set<string>();
  const left = [...from];
  for (let id = left.pop(); id !== undefined; id = left.pop()) {
    if (used.has(id)) continue;
    used.add(id);
    const text = JSON.stringify(components[id] ?? {});
    left.push(...[...text.matchAll(/"\$ref":"#\/components\/schemas\/([^"]+)"/g)].map(([, name = '']) => name));
  }
  return Object.fromEntries(Object.entries(components).filter(([id]) => used.has(id)));
}

const POINTERS = /"#\/components\/schemas\/([^"]+)"/g;

/** A schema as text, with what its pointers lead to in another word. */
const withPointers = (schema: Json, word: (id: string) => string): string =>
  JSON.stringify(schema).replace(POINTERS, (_, id: string) => JSON.stringify(`${PLACE}${word(id)}`));

/** The better of two names: one that was given, of what is answered, the shorter. */
const byName = (a: string, b: string): number =>
  Number(/^Part\d/.test(a)) - Number(/^Part\d/.test(b)) ||
  Number(a.endsWith('Sent')) - Number(b.endsWith('Sent')) ||
  a.length - b.length ||
  (a < b ? -1 : 1);

/**
 * For each component the name of the one that says the same, as far as its pointers lead; itself when it is
 * the only one. What is sent and what is answered mostly is the same.
 */
export function sameAs(components: Readonly<Record<string, Json>>): ReadonlyMap<string, string> {
  const ids = Object.keys(components).toSorted(byName);
  // All are taken for the same, and told apart by what they say, then by what those say that they point to.
  let classes = new Map(ids.map((id) => [id, '']));
  for (let before = 0; ; ) {
    const first = new Map<string, string>();
    classes = new Map(
      ids.map((id) => {
        const text = withPointers(components[id] ?? {}, (to) => classes.get(to) ?? to);
        if (!first.has(text)) first.set(text, id);
        return [id, first.get(text) ?? id];
      }),
    );
    if (first.size === before) return classes;
    before = first.size;
  }
}

/** Something with its pointers led to the names that `names` says. */
export const renamed = <T extends object>(value: T, names: ReadonlyMap<string, string>): T =>
  JSON.parse(withPointers(value as Json, (id) => names.get(id) ?? id)) as T;
