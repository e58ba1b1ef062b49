import type { ApprovalStep } from '@tolvek/core/approval';
import { designOf, type FormDesign } from '@tolvek/core/form';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addStep, changeSeat, editStep, moveStep, removeStep, seatBesides } from './steps.ts';

const fresh = designOf(
  { told: english, title: 'Any', team: 'boats', approvers: 'leads', calendar: 'desk' },
  'Any',
  [],
  [],
);
const GROUPS = ['leads', 'deck', 'safety'];

type Edit = (design: FormDesign, which: number) => FormDesign;
const idAt = ({ approval }: FormDesign, which: number): string =>
  approval.steps[which % approval.steps.length]?.id ?? '';
const stepAt = ({ approval }: FormDesign, which: number): ApprovalStep => {
  const step = approval.steps[which % approval.steps.length];
  if (!step) throw new Error('No step is left.');
  return step;
};
const EDITS: Readonly<Record<string, Edit>> = {
  add: (design) => addStep(design, 'Another', { group: 'deck' }),
  remove: (design, which) => removeStep(design, idAt(design, which)),
  earlier: (design, which) => moveStep(design, idAt(design, which), -1),
  later: (design, which) => moveStep(design, idAt(design, which), 1),
  ask: (design, which) => {
    const { id, seats } = stepAt(design, which);
    return editStep(design, id, { seats: [...seats, seatBesides(seats, GROUPS)] });
  },
  spare: (design, which) => {
    const { id, seats } = stepAt(design, which);
    return editStep(design, id, { seats: changeSeat(seats, which % seats.length, null) });
  },
  all: (design, which) => {
    const { id, seats } = stepAt(design, which);
    return editStep(design, id, { needed: seats.length });
  },
  sometimes: (design, which) => editStep(design, idAt(design, which), { when: which % 2 === 0 ? 'sum > 5' : ' ' }),
};

describe('the steps of an approval, as they are edited', () => {
  it('leave, whatever is done to them, somebody to decide and no step that waits for more than it asks', () => {
    const seen: Record<string, number> = {};
    const edits = fc.array(fc.tuple(fc.constantFrom(...Object.keys(EDITS)), fc.nat(9)), { maxLength: 25 });
    fc.assert(
      fc.property(edits, (all) => {
        let design = addStep(fresh, 'Second', { group: 'deck' });
        for (const [name, which] of all) {
          const before = design.approval.steps;
          design = EDITS[name]?.(design, which) ?? design;
          const { steps } = design.approval;
          if (before.length !== steps.length || steps.some((step, at) => step !== before[at]))
            seen[name] = (seen[name] ?? 0) + 1;
          expect(steps.length).toBeGreaterThan(0);
          expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
          for (const { needed, seats, when } of steps) {
            expect(needed >= 1 && needed <= seats.length).toBe(true);
            expect(when).not.toBe(' ');
          }
          // Moving changes the order and nothing else.
          if (name === 'earlier' || name === 'later') expect(new Set(steps)).toEqual(new Set(before));
        }
      }),
      { numRuns: 600 },
    );
    console.log('edits of approval steps', seen);
    for (const name of Object.keys(EDITS)) expect(seen[name]).toBeGreaterThan(20);
  });

  it('offer whom to ask besides: a group that is not asked yet, else one of them twice', () => {
    expect(seatBesides([{ group: 'leads' }], GROUPS)).toEqual({ group: 'deck' });
    expect(seatBesides([{ group: 'leads' }, { person: 'ana' }], ['leads'])).toEqual({ group: 'leads' });
    expect(changeSeat([{ group: 'leads' }], 0, null)).toEqual([{ group: 'leads' }]);
  });
});
