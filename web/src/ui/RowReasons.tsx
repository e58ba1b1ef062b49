import { OUTCOME_WORDS, type OutcomeName } from '@tolvek/core/routing';
import type { Words } from '@tolvek/words';
import { say, told } from '../wire/words.ts';
export interface ShownRow {
  readonly row: number;
  readonly note: Words;
  readonly won: boolean;
  readonly cells: readonly { readonly words: Words }[];
  /** What it set, in a table in which several rows do. */
  readonly says?: readonly OutcomeName[] | undefined;
}

/** What became of a row. */
function becameOf({ row, won, says }: ShownRow): string {
  if (!won) return say('common:rowPassed', { row });
  if (says === undefined) return say('common:rowUsed', { row });
  return says.length === 0
    ? say('common:rowMatched', { row })
    : say('common:rowSets', { row, what: says.map((name) => OUTCOME_WORDS[name]) });
}

/**
 * The rows of a routing table down to the one that decided, each with the cells that made the
 * difference.
 *
 * `isUsedNamed`: the note of the row that is used stands above already.
 */
export const RowReasons = ({ rows, isUsedNamed = false }: { rows: readonly ShownRow[]; isUsedNamed?: boolean }) => (
  <ol>
    {rows.map((row) => (
      <li key={row.row} className="border-t border-rule py-1.5">
        <p className={row.won ? 'font-semibold' : 'text-soft'}>
          {becameOf(row)}
          {row.note && !(row.won && isUsedNamed) ? ` ${told(row.note)}` : ''}
        </p>
        <ul className="pl-4 text-[13px]">
          {row.cells.map((cell) => (
            <li key={told(cell.words)} className="list-disc">
              {told(cell.words)}
            </li>
          ))}
        </ul>
      </li>
    ))}
  </ol>
);
