import { inWords, type Scope, type Value } from '@tolvek/core/expression';
import { analyseTable, type RoutingTable, type WorkedCase } from '@tolvek/core/routing';
import { useMemo } from 'react';

const SHOWN = 4;

/** What follows from the rows together: cases two rows would take, and cases that are left to the last row. */
export function TableNotes({ table, scope }: { table: RoutingTable; scope: Scope }) {
  const { overlaps, uncovered } = useMemo(() => analyseTable(table, scope), [table, scope]);
  const numberOf = (id: string): number => table.rows.findIndex((row) => row.id === id) + 1;
  const outcomeOf = (id: string): string => JSON.stringify(table.rows.find((row) => row.id === id)?.outcome);
  const telling = overlaps.filter((overlap) => outcomeOf(overlap.first) !== outcomeOf(overlap.second));
  if (telling.length === 0 && uncovered.length === 0) return null;
  const labels = labelsFor(table, scope);
  return (
    <section className="mt-6 max-w-[46rem]">
      <h2 className="section-head">What follows from these rows</h2>
      <ul className="mt-1">
        {telling.slice(0, SHOWN).map((overlap) => (
          <li key={`${overlap.first} ${overlap.second}`} className="border-b border-rule py-1.5">
            Rows {numberOf(overlap.first)} and {numberOf(overlap.second)} both take some requests; row {numberOf(overlap.first)} decides.
            <span className="block text-[13px] text-soft">For example: {caseInWords(overlap.at, labels)}</span>
          </li>
        ))}
        {telling.length > SHOWN ? <li className="py-1.5 text-soft">and {telling.length - SHOWN} more pairs of rows.</li> : null}
        {uncovered.slice(0, 1).map((left) => (
          <li key="left" className="border-b border-rule py-1.5">
            Some requests are left to the last row.
            <span className="block text-[13px] text-soft">For example: {caseInWords(left, labels)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

type Labels = (column: string, value: Value) => string;

const caseInWords = ({ values }: WorkedCase, labels: Labels): string => values.map(({ column, value }) => `${column} ${labels(column, value)}`).join(', ');

/** Values of choices by their labels. */
function labelsFor(table: RoutingTable, scope: Scope): Labels {
  return (label, value) => {
    const column = table.columns.find((each) => each.label === label);
    const type = column ? scope.find(column.input)?.type : null;
    const option = type?.kind === 'choice' ? type.options.find((each) => each.key === value) : undefined;
    return option?.label ?? inWords(value);
  };
}
