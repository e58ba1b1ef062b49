import { childrenOf, type Iteration, type Node } from './tree.ts';

/** Lists of rows by name, each with the names of its columns. */
export type Lists = ReadonlyMap<string, readonly string[]>;

/** Functions that tell of a list only how many rows it has. */
const COUNTING: ReadonlySet<string> = new Set(['count']);

/**
 * The columns that expressions read of lists of rows, by the name of the list; a list that is only counted, or held
 * against nothing, is there with none. Where rows go on as they are, all of their columns count as read.
 */
export function columnsRead(nodes: readonly Node[], lists: Lists): ReadonlyMap<string, ReadonlySet<string>> {
  const found = new Map<string, Set<string>>();
  const touch = (list: string): Set<string> => {
    const known = found.get(list) ?? new Set();
    found.set(list, known);
    return known;
  };
  const whole = (list: string | null): void => {
    if (list !== null) for (const column of lists.get(list) ?? []) touch(list).add(column);
  };
  /** Gives the list whose rows, or a row of which, a node stands for. `bound`: names of loops, with the list they go over. */
  const walk = (node: Node, bound: ReadonlyMap<string, string | null>): string | null => {
    const used = (child: Node, within = bound): void => whole(walk(child, within));
    const loop = (over: readonly Iteration[]): ReadonlyMap<string, string | null> => {
      const inner = new Map(bound);
      for (const { name, over: each } of over) {
        const list = each.kind === 'list' ? walk(each.list, inner) : null;
        if (each.kind === 'steps') for (const child of [each.low, each.high]) used(child, inner);
        inner.set(name, list);
      }
      return inner;
    };
    switch (node.kind) {
      case 'name': {
        const list = bound.has(node.name) ? (bound.get(node.name) ?? null) : lists.has(node.name) ? node.name : null;
        if (list !== null) touch(list);
        return list;
      }
      case 'path': {
        const list = walk(node.of, bound);
        if (list !== null && lists.get(list)?.includes(node.name)) touch(list).add(node.name);
        return null;
      }
      case 'filter': {
        const list = walk(node.list, bound);
        const row = (lists.get(list ?? '') ?? []).map((column) => [column, null] as const);
        // A name that is a column of the row, and an item, are of the row; what is read there is read of the list.
        if (list !== null)
          for (const column of namesBelow(node.by)) if (row.some(([each]) => each === column)) touch(list).add(column);
        used(node.by, new Map([...bound, ...row, ['item', list] as const]));
        return list;
      }
      case 'for':
        used(node.gives, loop(node.over));
        return null;
      case 'some':
      case 'every':
        used(node.test, loop(node.over));
        return null;
      case 'call':
        for (const each of node.args) {
          const list = walk(each, bound);
          if (!COUNTING.has(node.name)) whole(list);
        }
        return null;
      case 'compare': {
        const isNothing = ({ kind, ...rest }: Node): boolean =>
          kind === 'literal' && 'value' in rest && rest.value === null;
        const [left, right] = [walk(node.left, bound), walk(node.right, bound)];
        if (!isNothing(node.right)) whole(left);
        if (!isNothing(node.left)) whole(right);
        return null;
      }
      case 'if': {
        used(node.test);
        used(node.whenTrue);
        used(node.otherwise);
        return null;
      }
      default:
        for (const child of childrenOf(node)) used(child);
        return null;
    }
  };
  for (const node of nodes) whole(walk(node, new Map()));
  return found;
}

/** The names of names anywhere in a tree. */
const namesBelow = (node: Node): readonly string[] =>
  node.kind === 'name' ? [node.name] : childrenOf(node).flatMap(namesBelow);
