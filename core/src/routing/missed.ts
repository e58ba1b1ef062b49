import type { Words } from '@tolvek/words';
import { parseExpression, parseTests, type Scope, typeOf } from '../expression/index.ts';
import { own } from '../own/index.ts';
import type { RoutingTable } from './table.ts';

/**
 * A case that every row leaves to the last one: an option that a column’s rows pass over while they
 * name others.
 */
export interface Missed {
  readonly column: string;
  readonly label: string;
  readonly option: { readonly key: string; readonly label: Words };
}

/** The keys a cell asks for; null when it asks for anything else than options one by one. */
function namedIn(cell: string): readonly string[] | null {
  const tests = parseTests(cell);
  if (!tests.ok || cell.trim() === '') return null;
  const keys = tests.value.flatMap((test) =>
    test.kind === 'equal' && test.operand.kind === 'literal' && typeof test.operand.value === 'string'
      ? [test.operand.value]
      : [],
  );
  return keys.length === tests.value.length && keys.length > 0 ? keys : null;
}

/**
 * Options no row is for, in columns where every row names options and several are named: whoever
 * wrote those rows went through the list, so one that is left out was probably forgotten.
 */
export function missedOptions(table: RoutingTable, scope: Scope): readonly Missed[] {
  return table.columns.flatMap((column): readonly Missed[] => {
    const input = parseExpression(column.input);
    const type = input.ok ? typeOf(input.value, scope) : null;
    if (type?.kind !== 'choice' || type.open) return [];
    const cells = table.rows.map((row) => namedIn(own(row.cells, column.id) ?? ''));
    const named = new Set(cells.flatMap((keys) => keys ?? []));
    if (cells.some((keys) => keys === null) || named.size < 2) return [];
    return type.options
      .filter((option) => !named.has(option.key) && !('retired' in option && option.retired === true))
      .map(({ key, label }) => ({ column: column.id, label: column.label, option: { key, label } }));
  });
}
