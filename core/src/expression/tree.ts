/**
 * Tolvek's own expression tree. Every node keeps its place in the text (`from`, `to`, in UTF-16 units), so that
 * findings, explanations and editors can point at it. The language is a subset of FEEL (OMG DMN 1.5, chapter 10).
 */
export type Place = { readonly from: number; readonly to: number };

export type Comparator = '=' | '!=' | '<' | '<=' | '>' | '>=';
export type Arithmetic = '+' | '-' | '*' | '/' | '**';

export type Node = Place &
  (
    | { readonly kind: 'literal'; readonly value: number | string | boolean | null }
    | { readonly kind: 'date'; readonly iso: string }
    | { readonly kind: 'duration'; readonly iso: string }
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
    | { readonly kind: 'call'; readonly name: string; readonly args: readonly Node[] }
  );

/** One test in a table cell or after `in`: the cell holds when any of its tests holds. */
export type Test = Place &
  (
    | { readonly kind: 'any' }
    | { readonly kind: 'compare'; readonly op: Comparator; readonly operand: Node }
    | { readonly kind: 'range'; readonly low: Node; readonly high: Node; readonly lowOpen: boolean; readonly highOpen: boolean }
    | { readonly kind: 'equal'; readonly operand: Node }
    /** A full condition over `?` and other names, true or false by itself. */
    | { readonly kind: 'condition'; readonly node: Node }
    | { readonly kind: 'not'; readonly tests: readonly Test[] }
  );

/** The nodes directly below a node, in reading order. */
export function childrenOf(node: Node): readonly Node[] {
  switch (node.kind) {
    case 'literal':
    case 'date':
    case 'duration':
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
    case 'call':
      return node.args;
  }
}

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

/** Every top-level name a node reads, once each, in order of appearance. */
export function namesRead(nodes: readonly Node[]): readonly string[] {
  const found = new Set<string>();
  const visit = (node: Node): void => {
    if (node.kind === 'name') found.add(node.name);
    for (const child of childrenOf(node)) visit(child);
  };
  for (const node of nodes) visit(node);
  return [...found];
}
