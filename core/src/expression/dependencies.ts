import { type Node, namesRead } from './tree.ts';

/** A value that is computed from others. */
export interface Computed {
  readonly name: string;
  readonly node: Node;
}

export type ComputingOrder =
  | { readonly ok: true; readonly order: readonly string[] }
  /** A circle, named all the way round: `total → vat → total`. */
  | { readonly ok: false; readonly circle: readonly string[] };

/** The order to compute values in, each after those it reads; or a circle, when some need each other. */
export function computingOrder(values: readonly Computed[]): ComputingOrder {
  const reads = new Map(values.map(({ name, node }) => [name, namesRead([node])]));
  const done = new Set<string>();
  const order: string[] = [];
  const visit = (name: string, way: readonly string[]): readonly string[] | null => {
    if (done.has(name)) return null;
    if (way.includes(name)) return [...way.slice(way.indexOf(name)), name];
    for (const read of reads.get(name) ?? []) {
      const circle = reads.has(read) ? visit(read, [...way, name]) : null;
      if (circle) return circle;
    }
    done.add(name);
    order.push(name);
    return null;
  };
  for (const { name } of values) {
    const circle = visit(name, []);
    if (circle) return { ok: false, circle };
  }
  return { ok: true, order };
}
