import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heardOf, NOTHING_HEARD, sinceOf, withNews } from './liveRows.ts';

type Row = Parameters<typeof withNews>[0][number];
const row = (number: string, stands = 'a', version = 1): Row => ({ number, stands, version, group: 'g' }) as Row;
const again = (number: string, stands = 'a', version = 2): Row =>
  ({ number, stands, version, group: 'g' }) as unknown as Row;
const found = (rows: readonly Row[], later: readonly string[] = []) => ({ rows: [...rows], later: [...later] });
const told = (heard: Parameters<typeof sinceOf>[0], rows: readonly Row[]) => {
  const { came, moved, away } = sinceOf(heard, rows);
  return [came, moved, [...away].join(' ')];
};

describe('what is said of a view since its rows were read', () => {
  const rows = [row('A-1'), row('A-2')];
  const loaded = new Set(rows.map(({ number }) => number));

  it('is what came, what would stand elsewhere and what left, until it is read again', () => {
    const rest = found([again('A-1', 'b'), again('A-9'), again('A-8')], ['A-8']);
    const heard = heardOf(NOTHING_HEARD, ['A-1', 'A-2', 'A-8', 'A-9', 'A-7'], rest, loaded);
    expect(told(heard, rows)).toEqual([1, 1, 'A-2']);
    expect(told(heard, [row('A-9'), row('A-1', 'b')])).toEqual([0, 0, '']);
    // In another group it stands elsewhere as well.
    const other = { ...row('A-1'), group: 'h' };
    expect(told(heardOf(NOTHING_HEARD, ['A-1'], found([other]), loaded), rows)).toEqual([0, 1, '']);
  });

  it('is taken back where something comes back, or goes again before it was seen', () => {
    const first = heardOf(NOTHING_HEARD, ['A-1', 'A-9'], found([again('A-9')]), loaded);
    expect(told(first, rows)).toEqual([1, 0, 'A-1']);
    expect(told(heardOf(first, ['A-1', 'A-9'], found([again('A-1')]), loaded), rows)).toEqual([0, 0, '']);
    const twice = heardOf(
      heardOf(first, ['A-9'], found([again('A-9')]), loaded),
      ['A-1'],
      found([again('A-1', 'c')]),
      loaded,
    );
    expect(told(twice, rows)).toEqual([1, 1, '']);
  });

  it('has news in their places, and nothing older than what is seen', () => {
    const news = withNews([...rows, row('A-3', 'a', 5)], [again('A-1', 'b'), again('A-3', 'z', 4)]);
    expect(news.map(({ number, version, group, stands }) => [number, version, group, stands])).toEqual([
      ...[
        ['A-1', 2, 'g', 'a'],
        ['A-2', 1, 'g', 'a'],
        ['A-3', 5, 'g', 'a'],
      ],
    ]);
  });

  it('agrees with the view as it is by now, whatever happened in whatever order', () => {
    // A view is the numbers in it, each with where it stands; what is told is what differs from what was read.
    const state = fc.dictionary(fc.constantFrom('A-1', 'A-2', 'A-3', 'A-4'), fc.constantFrom('a', 'b'));
    const step = fc.record({ now: state, asked: fc.subarray(['A-1', 'A-2', 'A-3', 'A-4']) });
    fc.assert(
      fc.property(state, fc.array(step, { maxLength: 6 }), (read, steps) => {
        const seen = Object.entries(read).map(([number, stands]) => row(number, stands));
        const known = new Set(Object.keys(read));
        let heard = NOTHING_HEARD;
        // What was last said of each: only those that were asked for are known to be otherwise.
        const last: Record<string, string | undefined> = { ...read };
        for (const { now, asked } of steps) {
          const there = asked.flatMap((number) => (now[number] === undefined ? [] : [again(number, now[number])]));
          heard = heardOf(heard, asked, found(there), known);
          for (const number of asked) last[number] = now[number];
        }
        const came = Object.keys(last).filter((each) => last[each] !== undefined && !known.has(each));
        const gone = [...known].filter((each) => last[each] === undefined);
        const moved = [...known].filter((each) => last[each] !== undefined && last[each] !== read[each]);
        const since = sinceOf(heard, seen);
        expect([since.came, since.moved, [...since.away].toSorted()]).toEqual([
          ...[came.length, moved.length, gone.toSorted()],
        ]);
      }),
    );
  });
});
