import type { AnswerOf } from '@tolvek/contract';

const LEVELS = { hidden: 'hidden', read: 'reads', write: 'writes' } as const;

/**
 * Who may see which field, in sentences and as the grid that comes of them. The plan in force
 * protects every release.
 */
export function AccessPage({ form }: { form: AnswerOf<'form'> }) {
  const seats = form.grid[0]?.cells.map((cell) => cell.who) ?? [];
  return (
    <>
      <p className="text-soft">
        The access plan belongs to the register and is always the one in force, whatever release a request came by.
        Among the rules that apply, the strictest wins.
      </p>
      <h2 className="section-head mt-5">Rules</h2>
      <ul>
        {form.access.map((rule) => (
          <li key={rule.name} className="border-b border-rule py-2.5">
            <span className="text-[15.5px]">{rule.name}</span>
            <p className="text-soft">
              {rule.fields.join(', ')}:{' '}
              {rule.level === 'hidden' ? 'hidden from' : rule.level === 'read' ? 'readable by' : 'writable by'}{' '}
              {rule.audience}
            </p>
          </li>
        ))}
      </ul>
      <h2 className="section-head mt-7">What comes of them</h2>
      <table className="mt-1 w-full border-collapse">
        <thead>
          <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
            <th scope="col" className="py-1.5 pr-3 font-semibold">
              Field
            </th>
            {seats.map((who) => (
              <th key={who} scope="col" className="py-1.5 pr-3 font-semibold">
                {who}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {form.grid.map((row) => (
            <tr key={row.field} className="border-b border-rule">
              <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                {row.label}
              </th>
              {row.cells.map((cell) => (
                <td
                  key={cell.who}
                  title={cell.rule}
                  className={`py-1.5 pr-3 ${cell.level === 'hidden' ? 'font-semibold text-brick' : cell.level === 'read' ? 'text-ink' : 'text-soft'}`}
                >
                  {LEVELS[cell.level]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
