import type { Words } from '@tolvek/words';
import {
  type Compiled,
  type CompiledTests,
  cellInWords,
  compile,
  compileTests,
  entriesRead,
  type Node,
  namesRead,
  nodesOfTest,
  parseExpression,
  parseTests,
  printExpression,
  printTests,
  type Scope,
  type ScopeType,
  type Test,
  typeOf,
} from '../expression/index.ts';
import { own } from '../own/index.ts';
import type { RoutingTable } from './table.ts';

export interface ReadyColumn {
  readonly label: string;
  readonly node: Node;
  readonly type: ScopeType | null;
  readonly input: Compiled;
}

/** A cell that asks for something, compiled. */
export interface ReadyCell {
  readonly column: ReadyColumn;
  /** What it asks for. */
  readonly words: Words;
  /** Names that its column and its tests read. */
  readonly reads: readonly string[];
  /** What of the requester they read. */
  readonly ofRequester: readonly string[];
  readonly tests: readonly Test[];
  readonly holds: CompiledTests;
}

const NOTHING: Node = { kind: 'literal', value: null, from: 0, to: 0 };

/**
 * The cells of each row that ask for something. What can’t be read never holds; findings stop such
 * a table’s release.
 */
export function readyRows(table: RoutingTable, scope: Scope): readonly (readonly ReadyCell[])[] {
  const columns = table.columns.map((column) => {
    const parsed = parseExpression(column.input);
    const node = parsed.ok ? parsed.value : NOTHING;
    const ready: ReadyColumn = { label: column.label, node, type: typeOf(node, scope), input: compile(node, scope) };
    return { id: column.id, readable: parsed.ok, ready };
  });
  return table.rows.map((row) =>
    columns.flatMap(({ id, readable, ready }): ReadyCell[] => {
      const text = own(row.cells, id) ?? '';
      const parsed = parseTests(text);
      if (parsed.ok && parsed.value.every((test) => test.kind === 'any')) return [];
      if (!parsed.ok || !readable)
        return [{ column: ready, words: text, reads: [], ofRequester: [], tests: [], holds: () => false }];
      const nodes = [ready.node, ...parsed.value.flatMap(nodesOfTest)];
      const reads = namesRead(nodes);
      const ofRequester = nodes.flatMap((node) => entriesRead(node, 'requester'));
      const words = cellInWords(parsed.value, printExpression(ready.node), scope) ?? printTests(parsed.value, scope);
      return [
        { column: ready, words, reads, ofRequester, tests: parsed.value, holds: compileTests(parsed.value, scope) },
      ];
    }),
  );
}
