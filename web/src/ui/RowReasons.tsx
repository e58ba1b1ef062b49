import type { Words } from '@tolvek/words';
import { say, told } from '../wire/words.ts';
export interface ShownRow {
  readonly row: number;
  readonly note: Words;
  readonly won: boolean;
  readonly cells: readonly { readonly words: Words }[];
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
          {say(row.won ? 'common:rowUsed' : 'common:rowPassed', { row: row.row })}
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
