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
      }),
    );
  });
});
