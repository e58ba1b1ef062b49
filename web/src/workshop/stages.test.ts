import { moveFindings } from '@tolvek/core/register';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  moveInWords,
  type StageDraft,
  targetsOf,
  withChange,
  withMove,
  withoutStage,
  withRetired,
  withStage,
  withWaysSaid,
} from './stages.ts';

const STAGES: readonly StageDraft[] = [
  { key: 'arrived', label: 'Arrived', publicLabel: 'We have it', phase: 'arrived' },
  { key: 'deciding', label: 'To be decided', publicLabel: 'Being decided', phase: 'arrived', role: 'deciding' },
  { key: 'in_hand', label: 'In hand', publicLabel: 'In hand', phase: 'working' },
  { key: 'done', label: 'Done', publicLabel: 'Done', phase: 'finished', role: 'done' },
  { key: 'refused', label: 'Not approved', publicLabel: 'Not approved', phase: 'finished', role: 'refused' },
];

describe('editing stages', () => {
  it('keeps every stage that is in force, and leaves no way that leads nowhere, whatever is done', () => {
    const label = fc.constantFrom('Ordered', 'Packed', 'Done', 'Ä!');
    const edit = fc.record({
      ...{ does: fc.constantFrom('add', 'drop', 'retire', 'say', 'move'), label },
      ...{ at: fc.nat(), to: fc.nat(), on: fc.boolean() },
    });
    let said = 0;
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 14 }), (edits) => {
        let stages: readonly StageDraft[] = STAGES;
        const keyAt = (at: number): string => stages[at % stages.length]?.key ?? '';
        for (const each of edits)
          if (each.does === 'add') stages = withStage(stages, each.label, 'working');
          else if (each.does === 'drop') {
            const key = keyAt(each.at);
            if (!STAGES.some((stage) => stage.key === key)) stages = withoutStage(stages, key);
          } else if (each.does === 'retire') stages = withRetired(stages, keyAt(each.at), each.on);
          else if (each.does === 'say') stages = withWaysSaid(stages, keyAt(each.at), each.on);
          else {
            const from = keyAt(each.at);
            const targets = targetsOf(stages, from);
            const to = targets[each.to % Math.max(1, targets.length)]?.key;
            if (to !== undefined) stages = withMove(stages, from, to, each.on ? null : { filled: [] });
          }
        said += stages.filter((stage) => stage.moves).length;
        expect(STAGES.map(({ key }) => stages.some((stage) => stage.key === key))).not.toContain(false);
        expect(new Set(stages.map(({ key }) => key)).size).toBe(stages.length);
        expect(moveFindings({ stages, fields: [] })).toEqual([]);
      }),
    );
    console.log(`editing stages: ${said} stages with ways of their own`);
    expect(said).toBeGreaterThan(20);
  });

  it('says every way there was at first, and forgets them when it goes anywhere again', () => {
    const said = withWaysSaid(STAGES, 'in_hand', true);
    expect(said[2]?.moves?.map(({ to }) => to)).toEqual(['arrived', 'done']);
    expect(withWaysSaid(said, 'in_hand', false)).toEqual(STAGES);
    expect(withChange(said, 'done', { label: 'Over' })[3]).toMatchObject({ key: 'done', label: 'Over' });
  });

  it('says a way in words', () => {
    const move = { to: 'done', relations: ['handler'], groups: ['lab'], filled: ['badge'], when: 'fee > 5' } as const;
    const fields = [{ key: 'badge', label: 'Badge' }] as never;
    const about = { fields, groupName: (key: string) => key.toUpperCase(), when: 'Fee > 5' };
    expect(english(moveInWords(move, about))).toBe('by its handler or LAB, when “Badge” is filled in and Fee > 5');
    expect(english(moveInWords({ ...move, relations: [], groups: [], filled: [] }, { ...about, when: '' }))).toBe(
      'by the people who work on it',
    );
  });
});
