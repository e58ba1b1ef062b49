import { type Said, said, type Words } from '@tolvek/words';
import { typeOf } from './check.ts';
import { compile, type Slots } from './compile.ts';
import { printExpression } from './print.ts';
import { rowOf, subjectOf } from './rows.ts';
import { rowInWords } from './rowWords.ts';
import type { Scope } from './scope.ts';
import { chainOf, type Node, namesRead } from './tree.ts';
import type { ScopeType } from './types.ts';
import type { Ternary, Value } from './value.ts';
import { valueInWords } from './valueWords.ts';

/**
 * Why an expression came out as it did: one line in words, the names it read (so that a viewer who
 * may not read one of them can be shown the line without its values), and the lines below it.
 */
export interface Explanation {
  readonly words: Said;
  /** The same line for somebody who may not read one of its values. */
  readonly guarded: Said;
  readonly result: Ternary;
  readonly reads: readonly string[];
  readonly parts: readonly Explanation[];
}

/** Explains a condition for the values it was decided on. */
export function explain(node: Node, scope: Scope, slots: Slots): Explanation {
  const result = asTernary(compile(node, scope)(slots, null));
  const reads = namesRead([node]);
  const verdict = said(`reasons:verdict.${came(result)}`);
  if (node.kind === 'and' || node.kind === 'or') {
    const words = said(`reasons:${node.kind === 'and' ? 'all' : 'any'}.${came(result)}`);
    const parts = chainOf(node, node.kind).map((child) => explain(child, scope, slots));
    return { words, guarded: words, result, reads, parts };
  }
  const row = rowOf(node, scope);
  const condition = row ? rowInWords(row, scope) : labelled(node, scope);
  const guarded = said('reasons:cameOut', { condition, verdict });
  if (!row) {
    const values = readValues(reads, scope, slots);
    const words = values.length > 0 ? said('reasons:cameOutOn', { condition, verdict, values }) : guarded;
    return { words, guarded, result, reads, parts: [] };
  }
  const value = compile(subjectOf(row), scope)(slots, null);
  // “Institute is Corrin: true” needs no value, and “Works on water is yes: not true” neither.
  const told = (result === true && (row.test === 'is' || row.test === 'empty')) || typeof value === 'boolean';
  const words = told
    ? guarded
    : said('reasons:cameOutWith', { condition, verdict, value: valueInWords(value, typeOf(subjectOf(row), scope)) });
  return { words, guarded, result, reads, parts: [] };
}

/** A cell of a table: what it asks in words, the kind of its column, and the names it reads. */
export interface CellAsked {
  readonly column: { readonly label: string; readonly type: ScopeType | null };
  readonly words: Words;
  readonly reads: readonly string[];
}

/** Explains one table cell for its column: what it was tried on and what came out. */
export function explainCell(
  { column, words: test, reads }: CellAsked,
  { input, result }: { readonly input: Value; readonly result: Ternary },
): Explanation {
  const given = { column: column.label, value: valueInWords(input, column.type), test };
  return {
    words: said(`reasons:cellOn.${came(result)}`, given),
    guarded: said(`reasons:cellHidden.${came(result)}`, { column: column.label }),
    result,
    reads,
    parts: [],
  };
}

/** From what something was computed: `what` it is in words. */
export function explainComputed(node: Node, what: Words, scope: Scope, slots: Slots): Explanation {
  const reads = namesRead([node]);
  const values = readValues(reads, scope, slots);
  const guarded = said('reasons:computed', { what });
  const words = values.length > 0 ? said('reasons:computedFrom', { what, values }) : guarded;
  return { words, guarded, result: true, reads, parts: [] };
}

const came = (result: Ternary): 'true' | 'false' | 'unknown' =>
  result === null ? 'unknown' : result ? 'true' : 'false';
const asTernary = (value: Value): Ternary => (typeof value === 'boolean' ? value : null);

const readValues = (reads: readonly string[], scope: Scope, slots: Slots): readonly Said[] =>
  reads.flatMap((name) => {
    const place = scope.placeOf(name);
    const entry = scope.find(name);
    if (place?.kind !== 'slot' || !entry || entry.type?.kind === 'context') return [];
    const value = valueInWords(slots[place.index] ?? null, entry.type);
    return [said('reasons:valueOf', { label: entry.label, value })];
  });

/** The text of a node with every field by its label: for reading, not for writing. */
function labelled(node: Node, scope: Scope): string {
  const labelOf = (name: string): string => {
    const label = scope.find(name)?.label;
    return typeof label === 'string' ? label : name;
  };
  return printExpression(node, { shownAs: labelOf });
}
