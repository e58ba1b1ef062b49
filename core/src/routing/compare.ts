import { type Said, said, type Words } from '@tolvek/words';
import { isSame } from '../own/index.ts';
import { allRows, isComputed, OUTCOME_WORDS, OUTCOMES, type RoutingTable, type SayingRow } from './table.ts';

/** What of a row is otherwise than it was, as it is called. */
function changesOf(
  was: SayingRow & { readonly cells: object },
  is: SayingRow & { readonly cells: object },
): readonly Words[] {
  const asked = (row: { readonly cells: object }): readonly unknown[] =>
    Object.entries(row.cells)
      .filter(([, cell]) => typeof cell === 'string' && cell.trim() !== '')
      .sort(([a], [b]) => (a < b ? -1 : 1));
  const says = ({ outcome, leaves }: SayingRow, name: (typeof OUTCOMES)[number]): readonly unknown[] =>
    leaves.includes(name) || (name === 'deadlines' && !outcome.deadlines)
      ? []
      : [outcome[name] ?? null, isComputed(name) ? (outcome.formulas?.[name] ?? null) : null];
  return [
    ...(isSame(asked(was), asked(is)) ? [] : [said('changes:conditions')]),
    ...OUTCOMES.filter((name) => !isSame(says(was, name), says(is, name))).map((name) => OUTCOME_WORDS[name]),
    ...(isSame(was.outcome.followers ?? [], is.outcome.followers ?? []) ? [] : [said('changes:followers')]),
  ];
}

const rowsOf = (table: RoutingTable) => {
  const cells = new Map<string, object>(table.rows.map((row) => [row.id, row.cells]));
  return allRows(table).map((row) => ({ ...row, cells: cells.get(row.id) ?? {} }));
};

/** What becomes otherwise in the rows of a table, by their places in the new one; the last one is told as such. */
export function rowChanges(before: RoutingTable, after: RoutingTable): readonly Said[] {
  const [olds, news] = [rowsOf(before), rowsOf(after)];
  const was = new Map(olds.map((row) => [row.id, row]));
  const left = news.filter(({ id }) => was.has(id)).map(({ id }) => id);
  const gone = olds.length - left.length;
  const isMoved = !isSame(
    olds.map(({ id }) => id).filter((id) => left.includes(id)),
    left,
  );
  const named = (row: SayingRow, at: number): Said =>
    row.id === 'otherwise' ? said('changes:lastRow') : said('changes:rowNo', { row: at + 1 });
  return [
    ...news.flatMap((row, at): readonly Said[] => {
      const old = was.get(row.id);
      if (!old) return [said('changes:rowNew', { row: at + 1 })];
      const what = changesOf(old, row);
      return what.length > 0 ? [said('changes:rowOtherwise', { row: named(row, at), what })] : [];
    }),
    ...(gone > 0 ? [said('changes:rowsGone', { count: gone })] : []),
    ...(isMoved ? [said('changes:rowsMoved')] : []),
    ...(isSame(before.columns, after.columns) ? [] : [said('changes:tableColumns')]),
  ];
}
