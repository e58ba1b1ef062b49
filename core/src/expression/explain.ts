import { typeOf } from './check.ts';
import { compile, type Slots } from './compile.ts';
import { printExpression } from './print.ts';
import { labelOfSubject, type Row, rowInWords, rowOf, subjectOf } from './rows.ts';
import type { Scope } from './scope.ts';
import { chainOf, type Node, namesRead } from './tree.ts';
import { picksOf } from './types.ts';
import { inWords, isList, type Ternary, type Value } from './value.ts';

/**
 * Why an expression came out as it did: one line in words, the names it read (so that a viewer who
 * may not read one of them can be shown the line without its values), and the lines below it.
 */
export interface Explanation {
  readonly words: string;
  /** The same line for somebody who may not read one of its values. */
  readonly guarded: string;
  readonly result: Ternary;
  readonly reads: readonly string[];
  readonly parts: readonly Explanation[];
}

/** Explains a condition for the values it was decided on. */
export function explain(node: Node, scope: Scope, slots: Slots): Explanation {
  const result = asTernary(compile(node, scope)(slots, null));
  const reads = namesRead([node]);
  if (node.kind === 'and' || node.kind === 'or') {
    const said = `${node.kind === 'and' ? 'All of these hold' : 'Any of these holds'}: ${verdict(result)}`;
    return {
      words: said,
      guarded: said,
      result,
      reads,
      parts: chainOf(node, node.kind).map((child) => explain(child, scope, slots)),
    };
  }
  const row = rowOf(node, scope);
  if (row) {
    const said = `${labelOfSubject(row.of, scope)} ${rowInWords(row, scope)}: ${verdict(result)}`;
    const value = compile(subjectOf(row), scope)(slots, null);
    // “Institute is Corrin: yes” needs no “it is Corrin”, and “is yes: no” no “it is no”.
    const told = (result === true && (row.test === 'is' || row.test === 'empty')) || typeof value === 'boolean';
    return {
      words: told
        ? said
        : `${said}, it is ${typeOf(subjectOf(row), scope)?.kind === 'person' ? personLabel(value, scope, row) : optionLabel(value, optionsOf(subjectOf(row), scope))}`,
      guarded: said,
      result,
      reads,
      parts: [],
    };
  }
  const values = readValues(reads, scope, slots);
  const said = `${labelled(node, scope)}: ${verdict(result)}`;
  return { words: values ? `${said} (${values})` : said, guarded: said, result, reads, parts: [] };
}

/** Explains one table cell for its column: what it was tried on and what came out. */
export function explainCell(
  column: { readonly label: string; readonly node: Node },
  cell: { readonly text: string; readonly reads: readonly string[] },
  scope: Scope,
  decided: { readonly input: Value; readonly result: Ternary },
): Explanation {
  const { input, result } = decided;
  const options = optionsOf(column.node, scope);
  return {
    words: `${column.label} is ${optionLabel(input, options)}; the row asks for ${cellInWords(cell.text, options)}: ${cellVerdict(result)}`,
    guarded: `${column.label} is hidden from you; the row’s test on it ${cellVerdict(result)}`,
    result,
    reads: cell.reads,
    parts: [],
  };
}

const verdict = (result: Ternary): string => (result === null ? 'can’t be said' : result ? 'yes' : 'no');
const cellVerdict = (result: Ternary): string =>
  result === null ? 'can’t be said' : result ? 'holds' : 'does not hold';
const asTernary = (value: Value): Ternary => (typeof value === 'boolean' ? value : null);

function readValues(reads: readonly string[], scope: Scope, slots: Slots): string {
  return reads
    .map((name) => {
      const place = scope.placeOf(name);
      const entry = scope.find(name);
      if (place?.kind !== 'slot' || !entry || entry.type?.kind === 'context') return '';
      return `${entry.label} is ${optionLabel(slots[place.index] ?? null, picksOf(entry.type))}`;
    })
    .filter(Boolean)
    .join(', ');
}

type Options = readonly { readonly key: string; readonly label: string }[];

const optionsOf = (node: Node, scope: Scope): Options => picksOf(typeOf(node, scope));

/** People who are not among those known by name are not told by their ids. */
function personLabel(value: Value, scope: Scope, row: Row): string {
  if (value === null) return inWords(value);
  return optionsOf(subjectOf(row), scope).find((each) => each.key === value)?.label ?? 'somebody else';
}

function optionLabel(value: Value, options: Options): string {
  if (isList(value) && value.length > 0) return value.map((item) => optionLabel(item, options)).join(', ');
  const option = typeof value === 'string' ? options.find((each) => each.key === value) : undefined;
  return option ? option.label : inWords(value);
}

/** The text of a cell with option keys replaced by their labels. */
function cellInWords(cell: string, options: Options): string {
  const trimmed = cell.trim();
  if (trimmed === '' || trimmed === '-') return 'anything';
  const words = trimmed === 'true' ? 'yes' : trimmed === 'false' ? 'no' : trimmed;
  return words.replace(
    /"([^"]*)"/g,
    (whole, key: string) => options.find((option) => option.key === key)?.label ?? whole,
  );
}

/** The text of a node with every name by its label: for reading, not for writing. */
const labelled = (node: Node, scope: Scope): string =>
  printExpression(node, { shownAs: (name) => scope.find(name)?.label ?? name });
