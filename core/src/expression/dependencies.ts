import { parseExpression } from './parse.ts';
import { entriesRead, type Node, namesRead } from './tree.ts';

/** Texts whose names are remembered, at most. */
const REMEMBERED = 5_000;
const remembered = new Map<string, readonly string[]>();

/**
 * The names that an expression reads, from its text; none when it can’t be read. A form is looked
 * through again and again while it is changed: what was read last need not be parsed anew.
 */
export function namesIn(text: string): readonly string[] {
  let names = remembered.get(text);
  if (!names) {
    const parsed = parseExpression(text);
    names = parsed.ok ? namesRead([parsed.value]) : [];
    if (remembered.size >= REMEMBERED) remembered.clear();
    remembered.set(text, names);
  }
  return names;
}

/** What an expression reads of a name, one entry deep: `it.place` reads `place` of `it`. */
export function entriesIn(text: string, name: string): readonly string[] {
  const parsed = parseExpression(text);
  return parsed.ok ? entriesRead(parsed.value, name) : [];
}

/** A value that is computed from others. */
export interface Computed {
  readonly name: string;
  readonly node: Node;
}

export type ComputingOrder =
  | { readonly ok: true; readonly order: readonly string[] }
  /** A circle, named all the way round: `total → vat → total`. */
  | { readonly ok: false; readonly circle: readonly string[] };

/**
 * The order to compute values in, each after those it reads; or a circle, when some need each
 * other.
 */
export const computingOrder = (values: readonly Computed[]): ComputingOrder =>
  orderOf(new Map(values.map(({ name, node }) => [name, namesRead([node])])));

/**
 * An order in which each name comes after those it needs; names that need nothing known are left
 * out.
 */
export function orderOf(needs: ReadonlyMap<string, readonly string[]>): ComputingOrder {
  const done = new Set<string>();
  const order: string[] = [];
  const visit = (name: string, way: readonly string[]): readonly string[] | null => {
    if (done.has(name)) return null;
    if (way.includes(name)) return [...way.slice(way.indexOf(name)), name];
    for (const need of needs.get(name) ?? []) {
      const circle = needs.has(need) ? visit(need, [...way, name]) : null;
      if (circle) return circle;
    }
    done.add(name);
    order.push(name);
    return null;
  };
  for (const name of needs.keys()) {
    const circle = visit(name, []);
    if (circle) return { ok: false, circle };
  }
  return { ok: true, order };
}
