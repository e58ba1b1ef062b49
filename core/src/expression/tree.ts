import type { Temporal } from './value.ts';

/**
 * Tolvek's own expression tree. Every node keeps its place in the text (`from`, `to`, in UTF-16
 * units), so that findings, explanations and editors can point at it. The language is a subset of
 * FEEL (OMG DMN 1.5, chapter 10).
 */
export type Place = { readonly from: number; readonly to: number };

export type Comparator = '=' | '!=' | '<' | '<=' | '>' | '>=';
export type Arithmetic = '+' | '-' | '*' | '/' | '**';

/** One `x in …` of a loop: over a list, or over whole numbers from low to high. */
export interface Iteration {
  readonly name: string;
  readonly over:
    | { readonly kind: 'list'; readonly list: Node }
    | { readonly kind: 'steps'; readonly low: Node; readonly high: Node };
}

export type Node = Place &
  (
    | { readonly kind: 'literal'; readonly value: number | string | boolean | null }
    | { readonly kind: 'moment'; readonly value: Temporal }
    | { readonly kind: 'name'; readonly name: string }
    /** `?` in a table cell: the value of the cell's column. */
    | { readonly kind: 'input' }
    | { readonly kind: 'path'; readonly of: Node; readonly name: string }
    | { readonly kind: 'arithmetic'; readonly op: Arithmetic; readonly left: Node; readonly right: Node }
    | { readonly kind: 'negate'; readonly of: Node }
    | { readonly kind: 'compare'; readonly op: Comparator; readonly left: Node; readonly right: Node }
    | { readonly kind: 'between'; readonly of: Node; readonly low: Node; readonly high: Node }
    | { readonly kind: 'in'; readonly of: Node; readonly tests: readonly Test[] }
    | { readonly kind: 'and' | 'or'; readonly left: Node; readonly right: Node }
    | { readonly kind: 'if'; readonly test: Node; readonly whenTrue: Node; readonly otherwise: Node }
    | { readonly kind: 'list'; readonly items: readonly Node[] }
    | {
        readonly kind: 'range';
        readonly low: Node;
        readonly high: Node;
        readonly lowOpen: boolean;
        readonly highOpen: boolean;
      }
    /** `list[3]` or `list[price > 10]`. */
    | { readonly kind: 'filter'; readonly list: Node; readonly by: Node }
    | { readonly kind: 'for'; readonly over: readonly Iteration[]; readonly gives: Node }
    | { readonly kind: 'some' | 'every'; readonly over: readonly Iteration[]; readonly test: Node }
    | { readonly kind: 'call'; readonly name: string; readonly args: readonly Node[] }
  );

/** One test in a table cell or after `in`: the cell holds when any of its tests holds. */
export type Test = Place &
  (
    | { readonly kind: 'any' }
    | { readonly kind: 'compare'; readonly op: Comparator; readonly operand: Node }
    | {
        readonly kind: 'range';
        readonly low: Node;
        readonly high: Node;
        readonly lowOpen: boolean;
        readonly highOpen: boolean;
      }
    | { readonly kind: 'equal'; readonly operand: Node }
    /** A full condition over `?` and other names, true or false by itself. */
    | { readonly kind: 'condition'; readonly node: Node }
    | { readonly kind: 'not'; readonly tests: readonly Test[] }
  );

const nodesOfIteration = ({ over }: Iteration): readonly Node[] =>
  over.kind === 'list' ? [over.list] : [over.low, over.high];

/** The nodes directly below a node, in reading order. */
export function childrenOf(node: Node): readonly Node[] {
  switch (node.kind) {
    case 'literal':
    case 'moment':
    case 'name':
    case 'input':
      return [];
    case 'path':
    case 'negate':
      return [node.of];
    case 'arithmetic':
    case 'compare':
    case 'and':
    case 'or':
      return [node.left, node.right];
    case 'between':
      return [node.of, node.low, node.high];
    case 'in':
      return [node.of, ...node.tests.flatMap(nodesOfTest)];
    case 'if':
      return [node.test, node.whenTrue, node.otherwise];
    case 'list':
      return node.items;
    case 'range':
      return [node.low, node.high];
    case 'filter':
      return [node.list, node.by];
    case 'for':
      return [...node.over.flatMap(nodesOfIteration), node.gives];
    case 'some':
    case 'every':
      return [...node.over.flatMap(nodesOfIteration), node.test];
    case 'call':
      return node.args;
  }
}

/** What a chain of `and`, or of `or`, joins, in reading order; any other node alone. */
export const chainOf = (node: Node, kind: 'and' | 'or'): readonly Node[] =>
  node.kind === kind ? [...chainOf(node.left, kind), ...chainOf(node.right, kind)] : [node];

/** The expression nodes a test is made of. */
export function nodesOfTest(test: Test): readonly Node[] {
  switch (test.kind) {
    case 'any':
      return [];
    case 'compare':
    case 'equal':
      return [test.operand];
    case 'range':
      return [test.low, test.high];
    case 'condition':
      return [test.node];
    case 'not':
      return test.tests.flatMap(nodesOfTest);
  }
}

/**
 * The same tree with every node replaced bottom-up. Names bound by a loop are given to `change`
 * like any other, with the names in force around it.
 */
export function rewrite(
  node: Node,
  change: (node: Node, bound: ReadonlySet<string>) => Node,
  bound: ReadonlySet<string> = new Set(),
): Node {
  const again = (child: Node): Node => rewrite(child, change, bound);
  const loop = <T>(
    over: readonly Iteration[],
    finish: (over: readonly Iteration[], inner: ReadonlySet<string>) => T,
  ): T => {
    const inner = new Set(bound);
    const done = over.map((iteration): Iteration => {
      const each = (child: Node): Node => rewrite(child, change, new Set(inner));
      const next: Iteration['over'] =
        iteration.over.kind === 'list'
          ? { kind: 'list', list: each(iteration.over.list) }
          : { kind: 'steps', low: each(iteration.over.low), high: each(iteration.over.high) };
      inner.add(iteration.name);
      return { name: iteration.name, over: next };
    });
    return finish(done, inner);
  };
  const same = (): Node => {
    switch (node.kind) {
      case 'literal':
      case 'moment':
      case 'name':
      case 'input':
        return node;
      case 'path':
      case 'negate':
        return { ...node, of: again(node.of) };
      case 'arithmetic':
      case 'compare':
      case 'and':
      case 'or':
        return { ...node, left: again(node.left), right: again(node.right) };
      case 'between':
        return { ...node, of: again(node.of), low: again(node.low), high: again(node.high) };
      case 'in':
        return { ...node, of: again(node.of), tests: node.tests.map((test) => rewriteTest(test, again)) };
      case 'if':
        return { ...node, test: again(node.test), whenTrue: again(node.whenTrue), otherwise: again(node.otherwise) };
      case 'list':
        return { ...node, items: node.items.map(again) };
      case 'range':
        return { ...node, low: again(node.low), high: again(node.high) };
      case 'filter':
        return { ...node, list: again(node.list), by: rewrite(node.by, change, new Set([...bound, 'item'])) };
      case 'for':
        return loop(node.over, (over, inner) => ({ ...node, over, gives: rewrite(node.gives, change, inner) }));
      case 'some':
      case 'every':
        return loop(node.over, (over, inner) => ({ ...node, over, test: rewrite(node.test, change, inner) }));
      case 'call':
        return { ...node, args: node.args.map(again) };
    }
  };
  return change(same(), bound);
}

/** The same test with the nodes in it replaced. */
export function rewriteTest(test: Test, change: (node: Node) => Node): Test {
  switch (test.kind) {
    case 'any':
      return test;
    case 'compare':
    case 'equal':
      return { ...test, operand: change(test.operand) };
    case 'range':
      return { ...test, low: change(test.low), high: change(test.high) };
    case 'condition':
      return { ...test, node: change(test.node) };
    case 'not':
      return { ...test, tests: test.tests.map((each) => rewriteTest(each, change)) };
  }
}

/**
 * Every name from outside that nodes read, once each, in order of appearance; names bound by a loop
 * are not among them.
 */
export function namesRead(nodes: readonly Node[]): readonly string[] {
  const found = new Set<string>();
  for (const node of nodes) {
    rewrite(node, (each, bound) => {
      if (each.kind === 'name' && !bound.has(each.name)) found.add(each.name);
      return each;
    });
  }
  return [...found];
}

/** The entries of a name that a tree reads, one deep. */
export function entriesRead(node: Node, name: string): readonly string[] {
  const found = new Set<string>();
  rewrite(node, (each) => {
    if (each.kind === 'path' && each.of.kind === 'name' && each.of.name === name) found.add(each.name);
    return each;
  });
  return [...found];
}
