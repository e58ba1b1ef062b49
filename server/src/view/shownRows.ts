import type { AnswerOf } from '@tolvek/contract';
import { isFact } from '@tolvek/core/view';
import { iso } from '../platform/clock.ts';
import type { ShownRow } from '../request/queries.ts';
import { openedRow, rowsOf, sharedBy } from './ledger.ts';
import type { ViewLook } from './viewLook.ts';
import type { Key } from './viewOrder.ts';

const groupId = (keys: readonly Key[], at: readonly number[]): string => JSON.stringify(at.map((place) => keys[place]));

/** Where a row stands in its group, by what it is put in order by; when it came is always the same. */
const standsAt = (keys: readonly Key[], groupAt: readonly number[]): string =>
  JSON.stringify(keys.slice((groupAt.at(-1) ?? -1) + 1, -2));

/** What somebody sees of some requests in the rows of a view. */
export const shownBy = (look: ViewLook, rows: readonly ShownRow[]) => openedBy(look, rows).map(({ shown }) => shown);

/** The same, each with what it is read by. */
function openedBy(look: ViewLook, rows: readonly ShownRow[]) {
  const shared = sharedBy(look.looking, rows);
  const mark = look.marker();
  const fields = look.view.columns.flatMap(({ of }) => (isFact(of) ? [] : [of]));
  return rows.map((each) => {
    const { open, row } = openedRow(look.viewer, each, shared, look.now);
    const shown = {
      ...row,
      arrived: iso(each.createdAt),
      finished: each.finishedAt === null ? null : iso(each.finishedAt),
      cells: open.cellsOf(fields),
      mark: mark(open),
    };
    return { open, shown };
  });
}

/** The rows of a page by their keys, each with its group, where it stands, and its picture. */
export function rowsShown(
  look: ViewLook,
  page: readonly (readonly Key[])[],
  groupAt: readonly number[],
  picture: string | undefined,
): AnswerOf<'lookThrough'>['rows'] {
  const pictured = look.pictured(picture);
  const keysOf = new Map(page.map((keys) => [String(keys.at(-1)), keys]));
  const rows = rowsOf(look.db, [...keysOf.keys()]);
  return openedBy(look, rows).map(({ open, shown }, at) => {
    const keys = keysOf.get(rows[at]?.id ?? '') ?? [];
    return { ...shown, picture: open.fileOf(pictured), group: groupId(keys, groupAt), stands: standsAt(keys, groupAt) };
  });
}
