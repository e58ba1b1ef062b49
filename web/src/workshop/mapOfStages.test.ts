import type { Move, Stage } from '@tolvek/core/register';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BOX, mapOf, PHASES } from './mapOfStages.ts';

const move = (to: string, more: Partial<Move> = {}): Move => ({
  ...{ to, relations: [], groups: [], filled: [], when: '' },
  ...more,
});
const stage = (key: string, phase: Stage['phase'], more: Partial<Stage> = {}): Stage => ({
  ...{ key, label: key, publicLabel: key, phase },
  ...more,
});

/** Points along a path of `M`, `L` and `C`. */
function pointsOf(path: string): { x: number; y: number }[] {
  const points: { x: number; y: number }[] = [];
  for (const [, letter, numbers = ''] of path.matchAll(/([MLC])([^MLC]*)/g)) {
    const [a = 0, b = 0, c = 0, d = 0, e = a, f = b] = (numbers.match(/-?[\d.]+/g) ?? []).map(Number);
    const { x, y } = points.at(-1) ?? { x: a, y: b };
    const [first, second] =
      letter === 'C'
        ? [
            { x: a, y: b },
            { x: c, y: d },
          ]
        : [
            { x, y },
            { x: e, y: f },
          ];
    for (let t = 0; t <= 1; t += 1 / 64) {
      const [u, end] = [1 - t, letter === 'C' ? { x: e, y: f } : { x: a, y: b }];
      const at = (start: number, one: number, two: number, last: number): number =>
        u ** 3 * start + 3 * u ** 2 * t * one + 3 * u * t ** 2 * two + t ** 3 * last;
      points.push({ x: at(x, first.x, second.x, end.x), y: at(y, first.y, second.y, end.y) });
    }
  }
  return points;
}

const within =
  (box: { x: number; y: number }) =>
  ({ x, y }: { x: number; y: number }): boolean =>
    x > box.x && x < box.x + BOX.width && y > box.y && y < box.y + BOX.height;

describe('the map of stages', () => {
  it('has a way for each move that is said, marks the guarded ones, and those that a decision takes', () => {
    const { boxes, ways } = mapOf([
      stage('arrived', 'arrived', { moves: [move('work'), move('old'), move('refused')] }),
      stage('deciding', 'arrived', { role: 'deciding' }),
      stage('work', 'working', { moves: [move('done', { filled: ['date'] }), move('arrived')] }),
      stage('old', 'working', { retired: true }),
      stage('done', 'finished', { role: 'done' }),
      stage('refused', 'finished', { role: 'refused' }),
    ]);
    expect(boxes.map(({ key, isFree }) => [key, isFree])).toEqual([
      ['arrived', false],
      ['deciding', false],
      ['work', false],
      ['done', true],
      ['refused', false],
    ]);
    expect(ways.map(({ from, to, by, isGuarded }) => `${from} ${to} ${by} ${isGuarded}`)).toEqual([
      'arrived work people false',
      'work done people true',
      'work arrived people false',
      'deciding arrived decision false',
      'deciding refused decision false',
    ]);
  });

  it('lays no box over another, all of them within its edges, and every way between two of them', () => {
    const anyStages = fc
      .uniqueArray(
        fc.record({
          key: fc.constantFrom(...'abcdefgh'),
          phase: fc.constantFrom(...PHASES),
          to: fc.subarray([...'abcdefgh']),
        }),
        { selector: ({ key }) => key, maxLength: 8 },
      )
      .map((all) => all.map(({ key, phase, to }) => stage(key, phase, { moves: to.map((each) => move(each)) })));
    fc.assert(
      fc.property(anyStages, (stages) => {
        const { boxes, ways, width, height } = mapOf(stages);
        expect(boxes.map(({ key }) => key).sort()).toEqual(stages.map(({ key }) => key).sort());
        for (const [place, box] of boxes.entries()) {
          expect(box.x + BOX.width <= width && box.y + BOX.height <= height).toBe(true);
          for (const other of boxes.slice(place + 1))
            expect(Math.abs(box.x - other.x) >= BOX.width || Math.abs(box.y - other.y) >= BOX.height).toBe(true);
        }
        const keys = new Set(stages.map(({ key }) => key));
        const said = stages.flatMap(({ key, moves = [] }) =>
          moves.flatMap(({ to }) => (keys.has(to) && to !== key ? [`${key} ${to}`] : [])),
        );
        expect(ways.map(({ from, to }) => `${from} ${to}`).sort()).toEqual(said.sort());
        for (const { from, to, path } of ways) {
          const behind = boxes.filter(
            ({ key, ...box }) => key !== from && key !== to && pointsOf(path).some(within(box)),
          );
          expect(behind, `${from} ${to}`).toEqual([]);
        }
      }),
    );
  });
});
