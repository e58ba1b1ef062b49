import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { BUDGETS, Budget } from '../src/budget/index.ts';
import { analyseTable, prepareRouting, type TableAnalysis } from '../src/routing/index.ts';
import { benchTable, type LargeTable, largeTable, numbersTable } from './largeTables.ts';
import { often } from './often.ts';

/** What is found, without the worked examples: several are right. */
const found = ({ neverWin, overlaps, uncovered }: TableAnalysis) => ({
  neverWin: neverWin.map(({ row, because }) => [row, ...because].join(' ')),
  overlaps: overlaps.map(({ first, second }) => `${first} ${second}`),
  uncovered: uncovered.length > 0,
});

/** What an earlier and slower way found, which followed every case; kept when it was replaced. */
const golden = (name: string) =>
  JSON.parse(readFileSync(new URL(`./golden/${name}.json`, import.meta.url), 'utf8')) as ReturnType<typeof found>;

/** How many steps an analysis takes: the least table budget that it ends within, to a twentieth. */
function stepsOf({ table, scope }: LargeTable): number {
  let [low, high] = [0, 100_000_000];
  const ends = (steps: number): boolean => analyseTable(table, scope, { row: steps, table: steps, pairs: 1 }).complete;
  if (!ends(high)) return Number.POSITIVE_INFINITY;
  while (high - low > high / 20) {
    const middle = Math.floor((low + high) / 2);
    if (ends(middle)) high = middle;
    else low = middle;
  }
  return high;
}

describe('a large routing table', () => {
  it.each([
    ['bench', benchTable],
    ['numbers', numbersTable],
  ])('%s is looked through as a whole, with what following every case finds', (name, make) => {
    const { table, scope } = make();
    const analysis = analyseTable(table, scope);
    expect(analysis.complete).toBe(true);
    expect([analysis.notLooked, analysis.notCompared]).toEqual([[], []]);
    expect(found(analysis)).toEqual(golden(name));
  });

  it('takes far fewer steps than it may, and few more with twice the rows', () => {
    const steps = stepsOf(numbersTable());
    expect(steps).toBeLessThan(BUDGETS.analysis.table / 20);
    const twice = [often(100), often(200)].map((rows) => stepsOf(largeTable('nnnncccb', rows, 7)));
    expect(twice[1]).toBeLessThan(8 * (twice[0] ?? 0));
  });

  it('tells cases that really are left to the last row', () => {
    const { table, scope } = numbersTable();
    const route = prepareRouting(table, scope);
    for (const { values } of analyseTable(table, scope).uncovered)
      expect(route(values.map(({ value }) => value)).isOtherwise).toBe(true);
  });

  it.each(['nnnnnnnn', 'cccccccc', 'nnnnnnnnnnnn', 'bbbbbbbbbbbb', 'nb'])(
    'of %s ends within its budget, whatever it holds',
    (kinds) => {
      for (const empty of [0, 0.35, 0.8]) {
        const { table, scope } = largeTable(kinds, 200, 11, empty);
        const analysis = analyseTable(table, scope);
        const looked = table.rows.length - analysis.notLooked.length;
        expect([kinds, empty, looked / table.rows.length >= 0.6]).toEqual([kinds, empty, true]);
      }
    },
  );

  it('beyond its budget names what was not looked through, and says nothing of it', () => {
    const { table, scope } = benchTable();
    const some = analyseTable(table, scope, { row: 50, table: 2_000, pairs: 300 });
    const all = found(analyseTable(table, scope));
    expect(some.complete).toBe(false);
    expect(some.notLooked.length).toBeGreaterThan(20);
    expect(some.notCompared.length).toBeGreaterThan(100);
    for (const told of found(some).neverWin) expect(all.neverWin).toContain(told);
    for (const { row } of some.neverWin) expect(some.notLooked).not.toContain(row);
  });
});

describe('a budget', () => {
  it('is spent of the whole by each of its parts', () => {
    const whole = new Budget(10);
    const part = whole.part(4);
    expect([part.spend(4), part.spend(), whole.spend(5), whole.spend(2)]).toEqual([true, false, true, false]);
    expect(whole.part(100).spend()).toBe(false);
  });
});
