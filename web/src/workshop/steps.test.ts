import { type ApprovalStep, allSteps } from '@tolvek/core/approval';
import { designOf, type FormDesign } from '@tolvek/core/form';
import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addPath,
  addStep,
  changeSeat,
  editStep,
  firstLimit,
  moveStep,
  namePath,
  removePath,
  removeStep,
  seatBesides,
  withHours,
} from './steps.ts';

const blank = designOf(
  { told: english, title: 'Any', team: 'boats', approvers: 'leads', calendar: 'desk' },
  'Any',
  [],
  [],
);
// The last row asks for the path it begins with.
const fresh: FormDesign = {
  ...blank,
  routing: { ...blank.routing, otherwise: { ...blank.routing.otherwise, path: 'path' } },
};
const GROUPS = ['leads', 'deck', 'safety'];

type Edit = (design: FormDesign, which: number) => FormDesign;
const pathAt = ({ approval: { paths } }: FormDesign, which: number): string => paths[which % paths.length]?.id ?? '';
const idAt = (design: FormDesign, which: number): string => stepAt(design, which).id;
const stepAt = ({ approval }: FormDesign, which: number): ApprovalStep => {
  const steps = allSteps(approval);
  const step = steps[which % steps.length];
  if (!step) throw new Error('No step is left.');
  return step;
};
const EDITS: Readonly<Record<string, Edit>> = {
  add: (design, which) => addStep(design, pathAt(design, which), 'Another', { group: 'deck' }),
  path: (design) => addPath(design, 'Another path', 'Another', { group: 'deck' }),
  name: (design, which) => namePath(design, pathAt(design, which), `Path ${which}`),
  'no path': (design, which) => removePath(design, pathAt(design, which)),
  instead: (design, which) =>
    editStep(design, idAt(design, which), { instead: which % 2 ? [{ group: 'safety' }] : [] }),
  against: (design, which) => editStep(design, idAt(design, which), { against: which % 3 }),
  until: (design, which) => {
    const step = stepAt(design, which);
    const limit = step.limit ?? firstLimit(step);
    return editStep(design, step.id, {
      limit: which % 3 === 0 ? undefined : withHours(limit, { within: which, remind: which % 5 }),
    });
  },
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
        let design = addStep(fresh, 'path', 'Third', { group: 'deck' });
        design = addPath(design, 'Other', 'Second', { group: 'deck' });
        design = editStep(design, idAt(design, 1), { seats: GROUPS.map((group) => ({ group })) });
        for (const [name, which] of all) {
          const was = design;
          const before = allSteps(was.approval);
          design = EDITS[name]?.(design, which) ?? design;
          const { paths } = design.approval;
          const steps = allSteps(design.approval);
          if (JSON.stringify(was) !== JSON.stringify(design)) seen[name] = (seen[name] ?? 0) + 1;
          expect(paths.every((path) => path.steps.length > 0) && paths.length > 0).toBe(true);
          expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
          expect(new Set(paths.map(({ id }) => id)).size).toBe(paths.length);
          // What a row chooses is there.
          expect(paths.some(({ id }) => id === 'path')).toBe(true);
          for (const { needed, seats, when, instead, against, limit } of steps) {
            expect(needed >= 1 && needed <= seats.length).toBe(true);
            expect(when).not.toBe(' ');
            expect(instead).not.toEqual([]);
            // What may be against says something: fewer than make it impossible anyway.
            if (against !== undefined) expect(against < seats.length - needed).toBe(true);
            if (limit) expect(limit.within >= 3_600_000 && (limit.remind ?? 0) < limit.within).toBe(true);
          }
          // Moving changes the order and nothing else.
          if (name === 'earlier' || name === 'later') expect(new Set(steps)).toEqual(new Set(before));
        }
      }),
      { numRuns: 1_500 },
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
