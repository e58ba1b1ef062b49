import { type Value, valueInWords } from '@tolvek/core/expression';
import { type Field, requestScope } from '@tolvek/core/register';
import {
  allRows,
  analyseTable,
  hitsOf,
  isComputed,
  OUTCOMES,
  type OutcomeName,
  type RoutingTable,
  type SayingRow,
  type WorkedCase,
} from '@tolvek/core/routing';
import { type Said, said, type Words } from '@tolvek/words';

/**
 * What is asked of the worker, and what it tells. Large tables take a while; the page must not wait
 * for them.
 */
export interface NotesAsked {
  readonly table: RoutingTable;
  readonly fields: readonly Field[];
}

export interface NotesTold {
  /**
   * Pairs of rows, by number, that both take some requests and decide differently, with an example
   * in words.
   */
  readonly overlaps: readonly {
    readonly first: number;
    readonly second: number;
    readonly example: Words;
    /** What both set, in a table in which each thing is said for itself. */
    readonly names?: readonly OutcomeName[];
  }[];
  /** An example of what is left to the last row; null when nothing is. */
  readonly leftOver: Words | null;
  /** The number of the first row that was not held against those above it; null when all were. */
  readonly notComparedFrom: number | null;
}

self.addEventListener('message', ({ data }: MessageEvent<NotesAsked>) => self.postMessage(notesOn(data)));

function notesOn({ table, fields }: NotesAsked): NotesTold {
  const scope = requestScope(fields);
  const { overlaps, uncovered, notCompared } = analyseTable(table, scope);
  const numberOf = (id: string): number => table.rows.findIndex((row) => row.id === id) + 1;
  const rows = new Map(allRows(table).map((row) => [row.id, row]));
  const isEach = hitsOf(table) === 'each';
  /** What two rows say otherwise. */
  const otherwise = (first: string, second: string): readonly OutcomeName[] => {
    const [one, other] = [rows.get(first), rows.get(second)];
    if (!one || !other) return [];
    const says = ({ outcome: { formulas, ...outcome } }: SayingRow, name: OutcomeName): string =>
      JSON.stringify([outcome[name], isComputed(name) ? formulas?.[name] : null]);
    return OUTCOMES.filter(
      (name) => !one.leaves.includes(name) && !other.leaves.includes(name) && says(one, name) !== says(other, name),
    );
  };
  const cellValue = (column: string, value: Value): Words => {
    const input = table.columns.find((each) => each.label === column)?.input ?? '';
    return valueInWords(value, scope.find(input)?.type ?? null);
  };
  const inWords = ({ values }: WorkedCase): Said =>
    said('reasons:items', {
      items: values.map(({ column, value }) =>
        said('reasons:valueOf', { label: column, value: cellValue(column, value) }),
      ),
    });
  const [left] = uncovered;
  return {
    overlaps: overlaps
      .map(({ first, second, at }) => ({ first, second, at, names: otherwise(first, second) }))
      .filter(({ names }) => names.length > 0)
      .map(({ first, second, at, names }) => ({
        ...{ first: numberOf(first), second: numberOf(second), example: inWords(at) },
        ...(isEach ? { names } : {}),
      })),
    leftOver: left ? inWords(left) : null,
    notComparedFrom: notCompared[0] === undefined ? null : numberOf(notCompared[0]),
  };
}
