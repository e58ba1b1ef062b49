import { say } from '../wire/words.ts';

interface ColumnTableProps {
  readonly headings: readonly string[];
  /** The first line below them. */
  readonly first: readonly string[];
  /** What each column is; empty where it is left out. */
  readonly columns: readonly string[];
  readonly choices: readonly { readonly key: string; readonly label: string }[];
  readonly map: (index: number, key: string) => void;
}

/** The columns of a file, each with what it is taken for. */
export const ColumnTable = ({ headings, first, columns, choices, map }: ColumnTableProps) => (
  <table className="mt-2 w-full border-collapse">
    <thead>
      <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
        {[say('workshop:column.heading'), say('workshop:column.first'), say('workshop:column.is')].map((head) => (
          <th key={head} scope="col" className="py-1 pr-3 font-semibold">
            {head}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {headings.map((heading, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: two columns may have the same heading
        <tr key={index} className="border-b border-rule">
          <td className="py-1 pr-3">{heading}</td>
          <td className="max-w-48 truncate py-1 pr-3 text-soft">{first[index] ?? ''}</td>
          <td className="py-1">
            <select
              aria-label={say('workshop:columnIs', { heading })}
              className="input w-auto py-1"
              value={columns[index] ?? ''}
              onChange={(event) => map(index, event.target.value)}
            >
              <option value="">{say('workshop:columnLeftOut')}</option>
              {choices.map(({ key, label }) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
);
