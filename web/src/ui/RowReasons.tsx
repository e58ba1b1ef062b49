export interface ShownRow {
  readonly row: number;
  readonly note: string;
  readonly won: boolean;
  readonly cells: readonly { readonly words: string }[];
}

/**
 * The rows of a routing table down to the one that decided, each with the cells that made the
 * difference.
 */
export const RowReasons = ({ rows }: { rows: readonly ShownRow[] }) => (
  <ol>
    {rows.map((row) => (
      <li key={row.row} className="border-t border-rule py-1.5">
        <p className={row.won ? 'font-semibold' : 'text-soft'}>
          Row {row.row}
          {row.note ? `: ${row.note}` : ''} {row.won ? '· decided' : '· passed over'}
        </p>
        <ul className="pl-4 text-[13px]">
          {row.cells.map((cell) => (
            <li key={cell.words} className="list-disc">
              {cell.words}
            </li>
          ))}
        </ul>
      </li>
    ))}
  </ol>
);
