import type { AnswerOf } from '@tolvek/contract';
import type { FormDesign } from '@tolvek/core/form';
import { type Priority, priorities } from '@tolvek/core/register';
import type { RoutingOutcome, RoutingRow, RoutingTable } from '@tolvek/core/routing';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Button } from '../ui/Button.tsx';
import { freshKey } from './edits.ts';

interface RoutingPageProps {
  readonly draft: FormDesign;
  readonly change: (edit: (draft: FormDesign) => FormDesign) => void;
  readonly groups: AnswerOf<'form'>['groups'];
  readonly findings: AnswerOf<'form'>['findings'];
}

/** The routing table: the first row whose every cell holds decides; the last row takes everything else. */
export function RoutingPage({ draft, change, groups, findings }: RoutingPageProps) {
  const { routing } = draft;
  const put = (edit: (table: RoutingTable) => RoutingTable): void => change((before) => ({ ...before, routing: edit(before.routing) }));
  const editRow = (id: string, row: Partial<RoutingRow>): void => put((table) => ({ ...table, rows: table.rows.map((each) => (each.id === id ? { ...each, ...row } : each)) }));
  const teams = groups.filter((group) => group.isTeam);
  const add = (): void =>
    put((table) => ({ ...table, rows: [...table.rows, { id: freshKey('row', new Set(table.rows.map((row) => row.id))), note: '', cells: {}, outcome: table.otherwise }] }));
  const move = (index: number, by: number): void =>
    put((table) => {
      const rows = [...table.rows];
      const [row] = rows.splice(index, 1);
      if (row) rows.splice(index + by, 0, row);
      return { ...table, rows };
    });
  const columnsToAdd = [
    ...draft.fields.filter((field) => field.source === 'asked').map((field) => ({ input: field.key, label: field.label })),
    { input: 'requester.outside', label: 'From outside' },
    { input: 'door', label: 'Door' },
  ].filter((each) => !routing.columns.some((column) => column.input === each.input));
  return (
    <>
      <p className="text-soft">
        Read from the top: the first row whose every cell holds decides. Cells are tests: <code className="font-mono text-[12.5px]">&gt; 500</code>,{' '}
        <code className="font-mono text-[12.5px]">"corrin", "merrow"</code>, <code className="font-mono text-[12.5px]">[1..5]</code>,{' '}
        <code className="font-mono text-[12.5px]">true</code>; an empty cell takes anything.
      </p>
      <div className="mt-3 flex gap-2">
        <Button onClick={add}>Add row</Button>
        <select
          aria-label="Add a column"
          className="input w-auto py-1"
          value=""
          onChange={(event) => {
            const chosen = columnsToAdd.find((each) => each.input === event.target.value);
            if (chosen) put((table) => ({ ...table, columns: [...table.columns, { id: freshKey(chosen.input, new Set(table.columns.map((column) => column.id))), ...chosen }] }));
          }}
        >
          <option value="">Add a column …</option>
          {columnsToAdd.map((each) => (
            <option key={each.input} value={each.input}>
              {each.label}
            </option>
          ))}
        </select>
      </div>
      <div className="mt-4 overflow-x-auto">
        <table className="w-full border-collapse text-[13px]">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[11.5px] text-soft">
              <th className="w-7 py-1.5" scope="col">
                <span className="sr-only">Row</span>
              </th>
              {routing.columns.map((column) => (
                <th key={column.id} scope="col" className="min-w-24 py-1.5 pr-2 font-semibold">
                  {column.label}
                  <button
                    type="button"
                    className="ml-1 inline-flex size-6 items-center justify-center font-normal text-green"
                    aria-label={`Take away column ${column.label}`}
                    onClick={() =>
                      put((table) => ({
                        ...table,
                        columns: table.columns.filter((each) => each.id !== column.id),
                        rows: table.rows.map((row) => ({ ...row, cells: Object.fromEntries(Object.entries(row.cells).filter(([id]) => id !== column.id)) })),
                      }))
                    }
                  >
                    ✕
                  </button>
                </th>
              ))}
              <th scope="col" className="border-l border-rule-strong py-1.5 pr-2 pl-2 font-semibold">
                Team
              </th>
              <th scope="col" className="py-1.5 pr-2 font-semibold">
                Priority
              </th>
              <th scope="col" className="py-1.5 pr-2 font-semibold">
                Days
              </th>
              <th scope="col" className="py-1.5 pr-2 font-semibold">
                Approval
              </th>
              <th scope="col" className="py-1.5">
                <span className="sr-only">Move</span>
              </th>
            </tr>
          </thead>
          {routing.rows.map((row, index) => (
            <tbody key={row.id} id={`at-${row.id}`} className="border-b border-rule">
              <tr>
                <td className="pt-2 font-serif text-[14px] text-soft">{index + 1}</td>
                {routing.columns.map((column) => (
                  <td key={column.id} className="pt-2 pr-2">
                    <input
                      aria-label={`Row ${index + 1}, ${column.label}`}
                      className="input px-1.5 py-1 font-mono text-[12.5px]"
                      placeholder="anything"
                      value={row.cells[column.id] ?? ''}
                      onChange={(event) => editRow(row.id, { cells: { ...row.cells, [column.id]: event.target.value } })}
                    />
                  </td>
                ))}
                <Outcome name={`Row ${index + 1}`} outcome={row.outcome} teams={teams} set={(outcome) => editRow(row.id, { outcome })} />
                <td className="pt-2 whitespace-nowrap">
                  <button
                    type="button"
                    aria-label={`Row ${index + 1} up`}
                    disabled={index === 0}
                    className="inline-flex size-7 items-center justify-center text-green disabled:text-rule-strong"
                    onClick={() => move(index, -1)}
                  >
                    <ArrowUp size={14} />
                  </button>
                  <button
                    type="button"
                    aria-label={`Row ${index + 1} down`}
                    disabled={index === routing.rows.length - 1}
                    className="inline-flex size-7 items-center justify-center text-green disabled:text-rule-strong"
                    onClick={() => move(index, 1)}
                  >
                    <ArrowDown size={14} />
                  </button>
                  <button
                    type="button"
                    aria-label={`Take away row ${index + 1}`}
                    className="inline-flex size-7 items-center justify-center text-brick"
                    onClick={() => put((table) => ({ ...table, rows: table.rows.filter((each) => each.id !== row.id) }))}
                  >
                    ✕
                  </button>
                </td>
              </tr>
              <tr>
                <td />
                <td colSpan={routing.columns.length + 5} className="pt-1 pb-2">
                  <input
                    aria-label={`Why row ${index + 1} is there`}
                    className="w-full bg-transparent text-soft"
                    placeholder="Why this row is there"
                    value={row.note}
                    onChange={(event) => editRow(row.id, { note: event.target.value })}
                  />
                  {findings
                    .filter((finding) => finding.at === row.id)
                    .map((finding) => (
                      <p key={finding.message} className={finding.severity === 'error' ? 'text-brick' : 'text-brass'}>
                        {finding.message}
                      </p>
                    ))}
                </td>
              </tr>
            </tbody>
          ))}
          <tbody>
            <tr id="at-otherwise">
              <td className="pt-2 font-serif text-[14px] text-soft">{routing.rows.length + 1}</td>
              <td colSpan={routing.columns.length} className="pt-2 text-soft">
                Everything else
              </td>
              <Outcome name="The last row" outcome={routing.otherwise} teams={teams} set={(otherwise) => put((table) => ({ ...table, otherwise }))} />
              <td />
            </tr>
          </tbody>
        </table>
      </div>
    </>
  );
}

function Outcome({ name, outcome, teams, set }: { name: string; outcome: RoutingOutcome; teams: AnswerOf<'form'>['groups']; set: (outcome: RoutingOutcome) => void }) {
  return (
    <>
      <td className="border-l border-rule-strong pt-2 pr-2 pl-2">
        <select aria-label={`${name}, team`} className="input w-auto px-1.5 py-1" value={outcome.team} onChange={(event) => set({ ...outcome, team: event.target.value })}>
          {teams.map((team) => (
            <option key={team.key} value={team.key}>
              {team.name}
            </option>
          ))}
        </select>
      </td>
      <td className="pt-2 pr-2">
        <select
          aria-label={`${name}, priority`}
          className="input w-auto px-1.5 py-1"
          value={outcome.priority}
          onChange={(event) => set({ ...outcome, priority: event.target.value as Priority })}
        >
          {priorities.map((priority) => (
            <option key={priority}>{priority}</option>
          ))}
        </select>
      </td>
      <td className="pt-2 pr-2">
        <input
          aria-label={`${name}, working days`}
          type="number"
          min={0}
          max={250}
          className="input w-16 px-1.5 py-1"
          value={outcome.workingDays}
          onChange={(event) => set({ ...outcome, workingDays: Number(event.target.value) })}
        />
      </td>
      <td className="pt-2 pr-2 text-center">
        <input
          aria-label={`${name}, needs approval`}
          type="checkbox"
          className="accent-green"
          checked={outcome.needsApproval}
          onChange={(event) => set({ ...outcome, needsApproval: event.target.checked })}
        />
      </td>
    </>
  );
}
