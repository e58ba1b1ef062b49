import {
  expressionOfRows,
  type Node,
  parseExpression,
  parseTests,
  printExpression,
  rowOfCell,
  type Scope,
  subjectsOf,
} from '@tolvek/core/expression';
import { freshKey } from '@tolvek/core/form';
import {
  HITS,
  type Hits,
  hitsOf,
  leavesOf,
  type RoutingOutcome,
  type RoutingRow,
  type RoutingTable,
} from '@tolvek/core/routing';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type ComponentProps, useState } from 'react';
import { CellEditor } from '../../conditions/CellEditor.tsx';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { FindingLine } from '../Findings.tsx';
import { GroupOnTheSpot } from '../groundwork/NewGroup.tsx';
import { OwnOrUsual } from '../Reaches.tsx';
import { Tried } from '../Tried.tsx';
import { HandlerCell } from './HandlerCell.tsx';
import { handledBy } from './handlers.ts';
import { ApprovalOf, OutcomeCells } from './OutcomeCells.tsx';
import { RowDetails } from './RowDetails.tsx';
import { goingTogether, howSet, type RowSaid, rowWith } from './rowEdits.ts';
import { TableFile } from './TableFile.tsx';
import { TableNotes } from './TableNotes.tsx';
import { Wishes } from './Wishes.tsx';

/** The routing table: what its rows ask for and set, how they go together, and the last row for everything else. */
export function RoutingPage() {
  const { editing, form, keeping } = useBinder();
  const { draft, change, proof } = editing;
  const { findings } = keeping;
  const { routing } = draft;
  const { scope } = proof;
  const { groups } = form;
  const [tried, setTried] = useState<string | null>(null);
  /** The row whose details are open. */
  const [detailed, setDetailed] = useState<string | null>(null);
  const hits = hitsOf(routing);
  const last: RowSaid = { outcome: routing.otherwise, leaves: [] };
  const saidBy = (row: RoutingRow): RowSaid => ({ outcome: row.outcome, leaves: leavesOf(routing, row) });
  const put = (edit: (table: RoutingTable) => RoutingTable): void =>
    change((before) => ({ ...before, routing: edit(before.routing) }));
  const changeRow = (id: string, edit: (row: RoutingRow) => RoutingRow): void =>
    put((table) => ({ ...table, rows: table.rows.map((each) => (each.id === id ? edit(each) : each)) }));
  const editRow = (id: string, change: Partial<RoutingRow>): void => changeRow(id, (row) => ({ ...row, ...change }));
  const teams = groups.filter((group) => group.isTeam);
  const add = (): void =>
    put((table) => ({
      ...table,
      rows: [
        ...table.rows,
        {
          id: freshKey('row', new Set(table.rows.map((row) => row.id))),
          note: '',
          cells: {},
          outcome: table.otherwise,
        },
      ],
    }));
  const move = (index: number, by: number): void =>
    put((table) => {
      const rows = [...table.rows];
      const [row] = rows.splice(index, 1);
      if (row) rows.splice(index + by, 0, row);
      return { ...table, rows };
    });
  const deskOnly = new Set(draft.fields.flatMap(({ key, source }) => (source === 'desk-only' ? [key] : [])));
  const columnsToAdd = [
    // What only the desk fills in is empty when a request arrives.
    ...subjectsOf(scope).flatMap(({ of, label }) =>
      deskOnly.has(of.split('.')[0] ?? '') ? [] : [{ input: of, label: told(label) }],
    ),
    { input: 'today', label: say('workshop:arrivalDay') },
    { input: 'today.weekday', label: say('workshop:arrivalWeekday') },
    { input: 'now.hour', label: say('workshop:arrivalHour') },
  ].filter((each) => !routing.columns.some((column) => column.input === each.input));
  return (
    <>
      <p className="text-soft">{say('workshop:routingIntro')}</p>
      <p className="mt-2 flex flex-wrap items-baseline gap-2">
        <label className="font-semibold" htmlFor="hits">
          {say('workshop:hits')}
        </label>
        <select
          id="hits"
          className="input w-auto py-1"
          value={hits}
          onChange={({ target }) => put((table) => goingTogether(table, target.value as Hits))}
        >
          {HITS.map((each) => (
            <option key={each} value={each}>
              {say(`workshop:hitsIs.${each}`)}
            </option>
          ))}
        </select>
        <span className="text-[13px] text-soft">{say(`workshop:hitsMeans.${hits}`)}</span>
      </p>
      <OwnOrUsual part="routing" draft={draft} change={change} others={form.others} />
      <div className="mt-3 flex gap-2">
        <Button onClick={add}>{say('workshop:addRow')}</Button>
        <select
          aria-label={say('workshop:addColumn')}
          className="input w-auto py-1"
          value=""
          onChange={(event) => {
            const chosen = columnsToAdd.find((each) => each.input === event.target.value);
            if (chosen)
              put((table) => ({
                ...table,
                columns: [
                  ...table.columns,
                  { id: freshKey(chosen.input, new Set(table.columns.map((column) => column.id))), ...chosen },
                ],
              }));
          }}
        >
          <option value="">{say('workshop:addColumnMore')}</option>
          {columnsToAdd.map((each) => (
            <option key={each.input} value={each.input}>
              {each.label}
            </option>
          ))}
        </select>
        <span className="self-center">
          <GroupOnTheSpot isTeam made={() => undefined} />
        </span>
      </div>
      <div className="mt-4 overflow-x-auto">
        <table className="w-full border-collapse text-[13px]">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[11.5px] text-soft">
              <th className="w-7 py-1.5" scope="col">
                <span className="sr-only">{say('workshop:row')}</span>
              </th>
              {routing.columns.map((column) => (
                <th key={column.id} scope="col" className="min-w-24 py-1.5 pr-2 font-semibold">
                  {column.label}
                  <button
                    type="button"
                    className="ml-1 inline-flex size-6 items-center justify-center font-normal text-green"
                    aria-label={say('workshop:removeColumn', { label: column.label })}
                    onClick={() =>
                      put((table) => ({
                        ...table,
                        columns: table.columns.filter((each) => each.id !== column.id),
                        rows: table.rows.map((row) => ({
                          ...row,
                          cells: Object.fromEntries(Object.entries(row.cells).filter(([id]) => id !== column.id)),
                        })),
                      }))
                    }
                  >
                    ✕
                  </button>
                </th>
              ))}
              <th scope="col" className="border-l border-rule-strong py-1.5 pr-2 pl-2 font-semibold">
                {say('workshop:team')}
              </th>
              <th scope="col" className="py-1.5 pr-2 font-semibold">
                {say('workshop:priority')}
              </th>
              <th scope="col" className="py-1.5 pr-2 font-semibold">
                {say('workshop:daysHead')}
              </th>
              <th scope="col" className="py-1.5">
                <span className="sr-only">{say('workshop:move')}</span>
              </th>
            </tr>
          </thead>
          {routing.rows.map((row, index) => (
            <tbody key={row.id} id={`at-${row.id}`} className="border-b border-rule">
              <tr>
                <td className="pt-2 font-serif text-[14px] text-soft">{index + 1}</td>
                {routing.columns.map((column) => (
                  <td key={column.id} className="pt-2 pr-2">
                    <CellEditor
                      name={say('workshop:rowCell', { n: index + 1, column: column.label })}
                      of={column.input}
                      tests={row.cells[column.id] ?? ''}
                      scope={scope}
                      set={(tests) => editRow(row.id, { cells: { ...row.cells, [column.id]: tests } })}
                    />
                  </td>
                ))}
                <OutcomeCells
                  name={say('workshop:rowNo', { n: index + 1 })}
                  row={saidBy(row)}
                  teams={teams}
                  set={(outcome) => editRow(row.id, { outcome })}
                  more={() => setDetailed(row.id)}
                />
                <td className="pt-2 whitespace-nowrap">
                  {([-1, 1] as const).map((by) => (
                    <button
                      key={by}
                      type="button"
                      aria-label={say(by < 0 ? 'workshop:rowUp' : 'workshop:rowDown', { n: index + 1 })}
                      disabled={by < 0 ? index === 0 : index === routing.rows.length - 1}
                      className="inline-flex size-7 items-center justify-center text-green disabled:text-rule-strong"
                      onClick={() => move(index, by)}
                    >
                      {by < 0 ? <ArrowUp size={14} /> : <ArrowDown size={14} />}
                    </button>
                  ))}
                  <button
                    type="button"
                    aria-label={say('workshop:removeRow', { n: index + 1 })}
                    className="inline-flex size-7 items-center justify-center text-brick"
                    onClick={() =>
                      put((table) => ({ ...table, rows: table.rows.filter((each) => each.id !== row.id) }))
                    }
                  >
                    ✕
                  </button>
                </td>
              </tr>
              <tr>
                <td />
                <td colSpan={routing.columns.length + 4} className="pt-1 pb-2">
                  <div className="flex items-baseline gap-4">
                    <input
                      aria-label={say('workshop:whyRow', { n: index + 1 })}
                      className="min-w-0 flex-1 bg-transparent text-soft"
                      placeholder={say('workshop:whyRowHint')}
                      value={row.note}
                      onChange={(event) => editRow(row.id, { note: event.target.value })}
                    />
                    <RowSettings
                      name={say('workshop:rowNo', { n: index + 1 })}
                      row={saidBy(row)}
                      mayLeave={hits === 'each'}
                      open={detailed === row.id}
                      setOpen={(open) => setDetailed(open ? row.id : null)}
                      set={(said) =>
                        // What is left to later rows is kept while rows go together otherwise.
                        hits === 'each'
                          ? changeRow(row.id, (each) => rowWith(each, said))
                          : editRow(row.id, { outcome: said.outcome })
                      }
                    />
                    <button
                      type="button"
                      className="flex-none text-[12.5px] text-green underline"
                      aria-expanded={tried === row.id}
                      aria-label={say('workshop:tryRow', { n: index + 1 })}
                      onClick={() => setTried(tried === row.id ? null : row.id)}
                    >
                      {tried === row.id ? say('common:close') : say('workshop:tryIt')}
                    </button>
                  </div>
                  {tried === row.id ? (
                    <Tried formKey={form.key} condition={conditionOf(routing, row, scope)} proof={proof} />
                  ) : null}
                  {findings
                    .filter((finding) => finding.at === row.id)
                    .map((finding) => (
                      <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={change} />
                    ))}
                </td>
              </tr>
            </tbody>
          ))}
          <tbody>
            <tr id="at-otherwise">
              <td className="pt-2 font-serif text-[14px] text-soft">{routing.rows.length + 1}</td>
              <td colSpan={routing.columns.length} className="pt-2 text-soft">
                {say('workshop:everythingElse')}
              </td>
              <OutcomeCells
                name={say('workshop:lastRowName')}
                row={last}
                teams={teams}
                set={(otherwise) => put((table) => ({ ...table, otherwise }))}
                more={() => setDetailed('otherwise')}
              />
              <td />
            </tr>
            <tr>
              <td />
              <td colSpan={routing.columns.length + 4} className="pt-1 pb-2">
                <div className="flex items-baseline justify-end gap-4">
                  <RowSettings
                    name={say('workshop:lastRowName')}
                    row={last}
                    mayLeave={false}
                    open={detailed === 'otherwise'}
                    setOpen={(open) => setDetailed(open ? 'otherwise' : null)}
                    set={({ outcome }) => put((table) => ({ ...table, otherwise: outcome }))}
                  />
                </div>
                {findings
                  .filter((finding) => finding.at === 'otherwise')
                  .map((finding) => (
                    <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={change} />
                  ))}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <TableNotes table={routing} fields={draft.fields} />
      <Wishes />
      {/* What requesters wish is no part of a decision table. */}
      <TableFile put={(table) => put(({ wishes }) => ({ ...table, ...(wishes ? { wishes } : {}) }))} />
    </>
  );
}

/** What a row sets besides what has a column of its own. */
function RowSettings(props: ComponentProps<typeof RowDetails>) {
  const { name, row, set, setOpen } = props;
  const { form, editing } = useBinder();
  const { draft } = editing;
  const put = (outcome: RoutingOutcome): void => set({ ...row, outcome });
  return (
    <>
      <ApprovalOf {...{ name, row }} paths={draft.approval.paths} set={put} more={() => setOpen(true)} />
      {howSet(row, 'handler') === 'later' ? null : (
        <HandlerCell
          name={say('workshop:rowHandler', { name })}
          rule={row.outcome.handler}
          {...{ people: form.people, fields: draft.fields, skills: form.skills, rosters: form.rosters }}
          set={(handler) => put(handledBy(row.outcome, handler))}
        />
      )}
      <RowDetails {...props} />
    </>
  );
}

/**
 * A row as one condition: every cell about its column, as a row of a condition where it can be
 * shown as one.
 */
function conditionOf(table: RoutingTable, row: RoutingRow, scope: Scope): string {
  const cells = table.columns.flatMap((column): Node[] => {
    const [input, tests] = [parseExpression(column.input), parseTests(row.cells[column.id] ?? '')];
    if (!input.ok || !tests.ok || tests.value.every((test) => test.kind === 'any')) return [];
    const asRow = rowOfCell(tests.value, column.input, scope);
    return [asRow ? expressionOfRows(asRow) : { kind: 'in', of: input.value, tests: tests.value, from: 0, to: 0 }];
  });
  const [first, ...rest] = cells;
  return first
    ? printExpression(rest.reduce<Node>((left, right) => ({ kind: 'and', left, right, from: 0, to: 0 }), first))
    : 'true';
}
