import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cursorIn, linesOf, resized, stepFrom, widthOf } from './grid.ts';
import { newView } from './viewDraft.ts';

type Rows = Parameters<typeof linesOf>[0];
type Groups = Parameters<typeof linesOf>[1];
const rowsOf = (groups: readonly string[]): Rows =>
  groups.map((group, at) => ({ number: `VT-${at}`, group })) as unknown as Rows;

describe('the lines of a table', () => {
  it('are all rows in their order, each group with its head once, before its first row', () => {
    // Rows come in the order of their groups.
    const runs = fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 6 });
    fc.assert(
      fc.property(runs, fc.integer({ min: 0, max: 6 }), (sizes, known) => {
        const rows = rowsOf(sizes.flatMap((size, at) => Array.from({ length: size }, () => `g${at}`)));
        const groups = Array.from({ length: known }, (_, at) => ({ id: `g${at}` })) as unknown as Groups;
        const lines = linesOf(rows, groups);
        expect(lines.flatMap((line) => (line.is === 'row' ? [line.row] : []))).toEqual(rows);
        const heads = lines.flatMap((line) => (line.is === 'group' ? [line.group.id] : []));
        expect(heads).toEqual(groups.slice(0, sizes.length).map(({ id }) => id));
        for (const [at, line] of lines.entries()) {
          const next = lines[at + 1];
          if (line.is === 'group') expect(next?.is === 'row' && next.row.group).toBe(line.group.id);
          else expect(rows[line.at]).toBe(line.row);
        }
      }),
    );
  });
});

describe('the keyboard in a table', () => {
  const size = { rows: 40, columns: 5 };

  it('goes a step, a page, to an edge, and never out of it', () => {
    const keys = ['ArrowDown', 'ArrowUp', 'ArrowLeft', 'ArrowRight', 'PageDown', 'PageUp', 'Home', 'End'];
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...keys), fc.boolean()), { maxLength: 30 }),
        fc.integer({ min: 0, max: 39 }),
        (pressed, from) => {
          let at = { row: from, column: 2 };
          for (const [key, far] of pressed) {
            const to = stepFrom(at, key, size, far);
            if (!to) throw new Error(`${key} leads nowhere`);
            expect(to.row).toBeGreaterThanOrEqual(0);
            expect(to.row).toBeLessThan(size.rows);
            expect(to.column).toBeGreaterThanOrEqual(0);
            expect(to.column).toBeLessThan(size.columns);
            // One press changes the row or the column, and not both, but for the corners.
            if (!far) expect(to.row === at.row || to.column === at.column).toBe(true);
            at = to;
          }
        },
      ),
    );
    expect(stepFrom({ row: 7, column: 2 }, 'Home', size, true)).toEqual({ row: 0, column: 0 });
    expect(stepFrom({ row: 7, column: 2 }, 'End', size, true)).toEqual({ row: 39, column: 4 });
    expect(stepFrom({ row: 7, column: 2 }, 'x', size)).toBeNull();
    expect(stepFrom({ row: 7, column: 2 }, 'toString', size)).toBeNull();
  });

  it('stays with its request when other rows come, and in its place when that is gone', () => {
    const cursor = { row: 2, number: 'VT-2', column: 1 };
    const numbers = (...some: readonly number[]) => some.map((each) => ({ number: `VT-${each}` }));
    expect(cursorIn(cursor, numbers(9, 8, 0, 1, 2))).toEqual({ row: 4, number: 'VT-2', column: 1 });
    expect(cursorIn(cursor, numbers(0, 1, 3, 4))).toEqual({ row: 2, number: 'VT-3', column: 1 });
    expect(cursorIn(cursor, numbers(0))).toEqual({ row: 0, number: 'VT-0', column: 1 });
    expect(cursorIn(cursor, [])).toBeNull();
    expect(cursorIn(null, numbers(0))).toBeNull();
  });
});

describe('the width of a column', () => {
  it('is as it was made, within what is sensible; else by what stands in it', () => {
    const view = newView('', ['vessel-time']);
    const [subject] = view.columns;
    if (!subject) throw new Error('there is a column');
    const wide = resized(view, subject.of, 412.4);
    expect(wide.columns.map(({ width }) => width)).toEqual([412, undefined, undefined, undefined]);
    expect(resized(view, subject.of, 3).columns[0]?.width).toBe(60);
    expect(resized(view, subject.of, 30_000).columns[0]?.width).toBe(900);
    expect(widthOf(wide.columns[0] ?? subject, [])).toBe(412);
    const fields = [{ key: 'many', type: { kind: 'number', places: 0 } as const }];
    expect(widthOf({ of: 'many' }, fields)).toBeLessThan(widthOf({ of: 'request.subject' }, fields));
  });
});
