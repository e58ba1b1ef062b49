import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, ok, onVersion } from './desk.ts';

// Cells that are put into a view do what the same answers would do on each sheet, one after the other; and taken back, all is as before.
let desk: Desk;
let ilse: Caller;
let numbers: readonly string[];

beforeAll(async () => {
  desk = await Desk.open(70);
  ilse = await desk.as('Ilse Brandvold');
  const { rows } = ok(await ilse.call('ledger', { query: { tray: 'all' } }));
  numbers = rows.map(({ number }: { number: string }) => number).filter((each: string) => each.startsWith('AC-'));
});
afterAll(() => desk.close());

type Cells = Readonly<Record<string, string>>;
const valuesOf = async (number: string): Promise<Readonly<Record<string, unknown>>> => {
  const { values } = await ilse.sheet(number);
  return Object.fromEntries(values.fields.map(({ key, value }: { key: string; value: unknown }) => [key, value]));
};
const put = async (rows: readonly { number: string; cells: Cells }[], apply: boolean): Promise<Answer['body']> => {
  const on = [];
  for (const row of rows) on.push({ ...row, version: (await ilse.sheet(row.number)).version });
  return ok(await ilse.call('changeCells', { body: { rows: on, apply } }));
};

/** What is typed on a sheet for the words of a cell. */
const typed = (key: string, cell: string): unknown => {
  const said = cell.trim();
  if (said === '') return null;
  if (key === 'institute')
    return { 'corrin institute': 'corrin', 'tarnbay college': 'tarnbay' }[said.toLowerCase()] ?? said;
  if (key === 'works_on_water') return said.toLowerCase();
  return said;
};

const CELLS: Readonly<Record<string, readonly string[]>> = {
  escort: ['Ivo Lund', 'x'.repeat(121), '', '  Ada  '],
  institute: ['Corrin Institute', 'TARNBAY COLLEGE', 'No such place', 'other'],
  arrival: ['2026-12-04', '2026-13-40', '2026-12-30', ''],
  departure: ['2026-12-09', '2026-12-01', 'soon'],
  reason: ['Another one', ''],
  works_on_water: ['No', 'maybe', 'yes'],
  medical_note: ['Nothing'],
  nowhere: ['x'],
};

describe('cells that are changed together', () => {
  it('change what each sheet would change, say why not as it would, and are taken back whole', async () => {
    const seen = new Map<string, number>();
    const saw = (what: string): void => void seen.set(what, (seen.get(what) ?? 0) + 1);
    const cell = fc
      .constantFrom(...Object.keys(CELLS))
      .chain((key) => fc.constantFrom(...(CELLS[key] ?? [])).map((said) => [key, said] as const));
    const row = fc.record({
      number: fc.constantFrom(...numbers.slice(0, 12)),
      cells: fc.array(cell, { minLength: 1, maxLength: 3 }).map((some): Cells => Object.fromEntries(some)),
    });
    const block = fc.uniqueArray(row, { minLength: 1, maxLength: 3, selector: ({ number }) => number });
    await fc.assert(
      fc.asyncProperty(block, async (rows) => {
        const before = new Map<string, Readonly<Record<string, unknown>>>();
        for (const { number } of rows) before.set(number, await valuesOf(number));
        const looked = await put(rows, false);
        for (const { number } of rows) expect(await valuesOf(number)).toEqual(before.get(number));
        const done = await put(rows, true);
        // What is told beforehand is what happens.
        const told = ({ rows: some }: Answer['body']) =>
          some.map(({ version: _, ...each }: { version: number }) => each);
        expect(told(done)).toEqual(told(looked));
        const after = new Map<string, Readonly<Record<string, unknown>>>();
        for (const { number } of rows) after.set(number, await valuesOf(number));
        const changed = done.rows.filter((each: { changed: unknown[] }) => each.changed.length > 0);
        const back = async (): Promise<Answer['body']> =>
          ok(
            await ilse.call('takeBackCells', {
              body: { rows: changed.map(({ number, version }: Answer['body']) => ({ number, version })) },
            }),
          );
        if (changed.length > 0) {
          expect(await back()).toEqual({ back: changed.length, refused: [] });
          // A second time there is nothing that was changed last.
          expect((await back()).back).toBe(0);
          saw('taken back');
        }
        for (const { number } of rows)
          expect(await valuesOf(number), `${number} as before`).toEqual(before.get(number));
        // The same on each sheet: the good ones are good there, and what was refused is refused there.
        for (const [at, { number, cells }] of rows.entries()) {
          const { changed: keys, refused } = done.rows[at];
          const bad = new Set(refused.map(({ field }: { field: string | null }) => field));
          const good = bad.has(null) ? [] : Object.entries(cells).filter(([key]) => !bad.has(key));
          const on = async (some: readonly (readonly [string, string])[]): Promise<Answer> =>
            ilse.call('changeFields', {
              ...{ params: { number }, headers: onVersion((await ilse.sheet(number)).version) },
              body: { changes: Object.fromEntries(some.map(([key, said]) => [key, typed(key, said)])) },
            });
          if (refused.length > 0) {
            saw(bad.has(null) ? 'all of a request refused' : 'a cell refused');
            const whole = await on(Object.entries(cells));
            expect(whole.status, `${number} ${JSON.stringify(cells)}`).toBe(422);
            const named = new Set(whole.body.problems.map(({ field }: { field: string }) => field));
            for (const field of bad) if (field !== null && named.size > 0) saw('named by the sheet as well');
          }
          if (refused.length > 0 && keys.length > 0) saw('good ones kept beside bad ones');
          if (good.length > 0) expect((await on(good)).status).toBe(200);
          expect(await valuesOf(number), `${number} by its sheet`).toEqual(after.get(number));
          if (keys.length > 0) saw('changed');
          else if (refused.length === 0) saw('the same as before');
        }
      }),
      { numRuns: often(120) },
    );
    console.info('Cells:', Object.fromEntries([...seen].sort()));
    for (const what of [
      ...['changed', 'a cell refused', 'good ones kept beside bad ones', 'taken back', 'the same as before'],
    ])
      expect(seen.get(what) ?? 0, what).toBeGreaterThan(0);
  });

  it('are refused where somebody was faster, or may not, and stand in nobody’s way', async () => {
    const [one = '', other = ''] = numbers;
    const { version } = await ilse.sheet(one);
    const rows = [
      { number: one, version: version - 1, cells: { escort: 'Late' } },
      { number: other, version: (await ilse.sheet(other)).version, cells: { escort: 'In time' } },
      { number: 'AC-99999', version: 1, cells: { escort: 'Nowhere' } },
    ];
    const { rows: told } = ok(await ilse.call('changeCells', { body: { rows, apply: true } }));
    expect(told.map(({ changed }: { changed: string[] }) => changed)).toEqual([[], ['escort'], []]);
    expect(told[0].refused[0].field).toBeNull();
    expect(told[2].refused[0].field).toBeNull();
    // What somebody else has changed since stays so.
    const [, mine] = told;
    const maren = await desk.as('Maren Okafor');
    const theirs = await maren.call('changeFields', {
      ...{ params: { number: other }, headers: onVersion((await maren.sheet(other)).version) },
      body: { changes: { escort: 'By Maren' } },
    });
    ok(theirs);
    for (const at of [mine.version, theirs.body.version]) {
      const body = { rows: [{ number: other, version: at }] };
      expect(ok(await ilse.call('takeBackCells', { body })).back).toBe(0);
    }
    expect((await valuesOf(other)).escort).toBe('By Maren');
  });
});
