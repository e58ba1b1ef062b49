import type { AnswerOf } from '@tolvek/contract';
import { dateAt } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import { enoughIn, type MatrixShape, measured, type ViewDesign } from '@tolvek/core/view';
import { sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { columnsOf } from './board.ts';
import { sayer } from './chartLook.ts';
import { openedRow, rowsOf, sharedBy } from './ledger.ts';
import { beganLook } from './viewed.ts';
import type { Key } from './viewOrder.ts';
import { countedOf } from './viewWay.ts';

const DAY = 86_400_000;

interface Row {
  readonly id: string;
  readonly number: string;
  readonly down: Key;
  readonly across: Key;
  readonly figure: Key;
  readonly day: string | null;
}

/** What somebody sees of a view as a matrix. */
export function lookAtMatrix(
  db: Reader,
  viewer: Viewer,
  { view, shape }: { readonly view: ViewDesign; readonly shape: MatrixShape },
  now: number,
  most?: number,
): AnswerOf<'lookAtMatrix'> {
  const groups = [shape.down, shape.across];
  const { look, ...said } = beganLook(db, viewer, { ...view, groups, shapes: [shape] }, now, view);
  const nothing = { down: [], across: [], cells: [], total: 0, more: false, isAll: true };
  if (!look) return { ...nothing, ...said };
  const { where, isAll } = look.meant();
  const counted = countedOf(look, where, { most });
  if (counted.more) return { ...nothing, ...counted, isAll, ...said };
  const [down = sql`null`, across = sql`null`] = look.groups().map(({ is }) => is);
  const read = (subject: string | null | undefined) =>
    (subject === null || subject === undefined ? null : look.subject(subject)?.is) ?? sql`null`;
  // The newest first: of several in one place, that is what stands there.
  const rows = db.all<Row>(
    sql`select ${requests.id} as id, ${requests.number} as number, ${down} as down, ${across} as across, ${read(shape.cell.of)} as figure, ${read(shape.fresh?.of)} as day from ${requests} where ${where} order by ${requests.createdAt} desc, ${requests.id}`,
  );
  const place = (of: string) => {
    const values = columnsOf(look, of, where).map(({ value, label }) => ({ value, label }));
    return { values, at: new Map(values.map(({ value }, nth) => [value, nth])) };
  };
  const [lines, columns] = [place(shape.down), place(shape.across)];
  const together = new Map<string, Row[]>();
  for (const row of rows) {
    const key = `${lines.at.get(row.down)} ${columns.at.get(row.across)}`;
    const found = together.get(key);
    if (found) found.push(row);
    else together.set(key, [row]);
  }
  const held =
    shape.cell.is === 'newest'
      ? heldBy(
          look,
          shape,
          [...together.values()].flatMap(([one]) => one?.id ?? []),
        )
      : null;
  const say = sayer(shape.cell.of, look.given);
  const { zone } = deskOf(db);
  const oldest = shape.fresh ? dateAt(now - shape.fresh.days * DAY, zone) : '';
  const cells = [...together].map(([key, some]) => {
    const [one] = some as [Row];
    const [line = 0, column = 0] = key.split(' ').map(Number);
    const figures = some.flatMap(({ figure }) => (typeof figure === 'number' ? [figure] : []));
    const figure =
      shape.cell.is === 'newest'
        ? typeof one.figure === 'number'
          ? one.figure
          : null
        : measured(shape.cell.is, figures, some.length);
    const day = one.day?.slice(0, 10) ?? null;
    return {
      ...{ down: line, across: column, count: some.length, figure },
      said: held ? (held.get(one.id) ?? '') : say(figure),
      number: some.length === 1 ? one.number : null,
      stale: day !== null && day < oldest ? day : null,
    };
  });
  const enough = (column: number): number | null =>
    shape.wanted === null
      ? null
      : enoughIn(
          cells.filter((cell) => cell.across === column).map((cell) => cell.figure),
          shape.wanted.figure,
        );
  return {
    down: lines.values,
    across: columns.values.map((each, at) => ({ ...each, enough: enough(at) })),
    cells,
    ...{ ...counted, isAll, ...said },
  };
}

/** What some requests hold of the field that stands in the cells, in words, as their reader may read it. */
function heldBy(look: NonNullable<ReturnType<typeof beganLook>['look']>, shape: MatrixShape, ids: readonly string[]) {
  const rows = rowsOf(look.db, ids);
  const shared = sharedBy(look.looking, rows);
  return new Map(
    rows.map((row) => {
      const [cell = ''] = openedRow(look.viewer, row, shared, look.now).open.cellsOf([shape.cell.of ?? '']);
      return [row.id, cell];
    }),
  );
}
