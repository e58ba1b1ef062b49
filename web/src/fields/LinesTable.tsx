import { type ItemRow, type Kind, type NameOf, rowIdOf, sayValue } from '@tolvek/core/register';
import { told } from '../wire/words.ts';

const isFigure = (kind: Kind['kind']): boolean => kind === 'number' || kind === 'money';

/** Line items as a small table, to be read. */
export function LinesTable({
  type,
  rows,
  nameOf,
}: {
  type: Extract<Kind, { kind: 'line-items' }>;
  rows: readonly ItemRow[];
  nameOf: NameOf;
}) {
  return (
    <table className="mt-1 w-full border-collapse text-[0.93em]">
      <thead>
        <tr className="border-b border-rule text-left text-soft">
          {type.columns.map((column) => (
            <th
              key={column.key}
              scope="col"
              className={`pr-3 pb-0.5 font-normal last:pr-0 ${isFigure(column.type.kind) ? 'text-right' : ''}`}
            >
              {column.label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, index) => (
          <tr key={rowIdOf(row, index)}>
            {type.columns.map((column) => {
              const value = row[column.key];
              return (
                <td
                  key={column.key}
                  className={`py-0.5 pr-3 align-top last:pr-0 ${isFigure(column.type.kind) ? 'text-right whitespace-nowrap' : ''}`}
                >
                  {value === undefined ? '' : told(sayValue(column, value, nameOf))}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
