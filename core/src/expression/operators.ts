import type { SyntaxNode } from '@lezer/common';
import { childrenIn } from './syntax.ts';

/** An operator with what stands at its right, up to the next operator. */
type Link =
  | { readonly kind: 'or' | 'and' | 'compare'; readonly sign: SyntaxNode; readonly right: SyntaxNode }
  | { readonly kind: 'between'; readonly low: SyntaxNode; readonly high: SyntaxNode }
  /** `sign`: the one of `in > 5`. */
  | { readonly kind: 'in'; readonly tests: readonly SyntaxNode[]; readonly sign: SyntaxNode | null };

/**
 * An operand and the operators after it, in reading order; what stands in brackets is one operand.
 */
interface Chain {
  readonly first: SyntaxNode;
  readonly links: readonly Link[];
}

/**
 * How tightly an operator binds (OMG DMN 1.5, 10.3.1.2: disjunction, conjunction, comparison). What
 * binds tighter than a comparison, the grammar’s parser reads rightly.
 */
const BINDS: Readonly<Record<Link['kind'], number>> = { or: 1, and: 2, compare: 3, between: 3, in: 3 };

/** Taken apart into operands and operators; undefined where something is missing. */
export function chainIn(syntax: SyntaxNode): Chain | undefined {
  const parts = childrenIn(syntax);
  const [left, sign, ...rest] = parts;
  if (syntax.name === 'Conjunction' || syntax.name === 'Disjunction')
    return linked(left, syntax.name === 'Conjunction' ? 'and' : 'or', sign, rest[0]);
  if (syntax.name !== 'Comparison') return { first: syntax, links: [] };
  if (sign?.name === 'CompareOp') return linked(left, 'compare', sign, rest[0]);
  if (sign?.name === 'between') {
    const [low, , last] = rest;
    const high = last && chainIn(last);
    return low && high && after(left, { kind: 'between', low, high: high.first }, high.links);
  }
  const [only] = rest;
  if (only?.name !== 'PositiveUnaryTest') {
    const list = rest.find((part) => part.name === 'PositiveUnaryTests');
    return list && after(left, { kind: 'in', tests: childrenIn(list), sign: null });
  }
  return lookedIn(left, only);
}

/** `in` without brackets: the grammar’s parser takes in what follows, which is given back here. */
function lookedIn(left: SyntaxNode | undefined, test: SyntaxNode): Chain | undefined {
  const [written] = childrenIn(test);
  const [sign, compared] = written?.name === 'SimplePositiveUnaryTest' ? childrenIn(written) : [];
  const isSigned = sign?.name === 'CompareOp';
  const found = isSigned ? compared && chainIn(compared) : written && chainIn(written);
  return found && after(left, { kind: 'in', tests: [found.first], sign: isSigned ? sign : null }, found.links);
}

function linked(
  left: SyntaxNode | undefined,
  kind: 'or' | 'and' | 'compare',
  sign: SyntaxNode | undefined,
  right: SyntaxNode | undefined,
): Chain | undefined {
  const found = right && chainIn(right);
  return sign && found && after(left, { kind, sign, right: found.first }, found.links);
}

function after(left: SyntaxNode | undefined, link: Link, more: readonly Link[] = []): Chain | undefined {
  const before = left && chainIn(left);
  return before && { first: before.first, links: [...before.links, link, ...more] };
}

/**
 * Puts a chain together by how tightly its operators bind, those that bind alike from the left. The
 * grammar’s parser would read `x in [1, 2] or y` as `x in ([1, 2] or y)`.
 */
export function joined<Whole>(
  { first, links }: Chain,
  alone: (operand: SyntaxNode) => Whole,
  join: (left: Whole, link: Link, right: Whole | null) => Whole,
): Whole {
  let at = 0;
  const from = (operand: SyntaxNode, least: number): Whole => {
    let whole = alone(operand);
    for (let link = links[at]; link && BINDS[link.kind] >= least; link = links[at]) {
      at += 1;
      whole = join(whole, link, 'right' in link ? from(link.right, BINDS[link.kind] + 1) : null);
    }
    return whole;
  };
  return from(first, 0);
}
