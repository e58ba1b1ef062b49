import type { AnswerOf } from '@tolvek/contract';

/** Which row of the routing table decided, and why the rows above did not. */
export function WhyRouted({ routing }: { routing: AnswerOf<'sheet'>['routing'] }) {
  return (
    <div className="mt-2">
      <p className="text-soft">{routing.outcome}</p>
      <ol className="mt-2">
        {routing.rows.map((row) => (
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
    </div>
  );
}
