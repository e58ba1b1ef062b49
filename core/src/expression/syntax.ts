import type { SyntaxNode } from '@lezer/common';

/** The parts of a node that say something: no comments, no commas. */
export function childrenIn(syntax: SyntaxNode): SyntaxNode[] {
  const found: SyntaxNode[] = [];
  for (let child = syntax.firstChild; child; child = child.nextSibling) {
    if (!['LineComment', 'BlockComment', ','].includes(child.name)) found.push(child);
  }
  return found;
}
