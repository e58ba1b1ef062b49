import type { ApprovalStep, SeatPlan } from '@tolvek/core/approval';
import { type FormDesign, freshKey } from '@tolvek/core/form';
import { wordOf } from '@tolvek/core/people';
import { movedById } from './edits.ts';

const withSteps = (
  design: FormDesign,
  edit: (steps: readonly ApprovalStep[]) => readonly ApprovalStep[],
): FormDesign => ({
  ...design,
  approval: { steps: edit(design.approval.steps) },
});

/** A step that is edited; as many have to agree as before, as far as so many are asked. */
export const editStep = (design: FormDesign, id: string, edit: Partial<Omit<ApprovalStep, 'id'>>): FormDesign =>
  withSteps(design, (steps) =>
    steps.map((step) => {
      if (step.id !== id) return step;
      const { when, ...next } = { ...step, ...edit };
      const needed = Math.max(1, Math.min(next.needed, next.seats.length));
      return when === undefined || when.trim() === '' ? { ...next, needed } : { ...next, needed, when };
    }),
  );

/** Another step after all others, which asks whom it is given. */
export const addStep = (design: FormDesign, label: string, seat: SeatPlan): FormDesign =>
  withSteps(design, (steps) => [
    ...steps,
    { id: freshKey('step', new Set(steps.map(({ id }) => id))), label, seats: [seat], needed: 1 },
  ]);

/** A path without a step; the last one stays, for nobody could decide. */
export const removeStep = (design: FormDesign, id: string): FormDesign =>
  withSteps(design, (steps) => (steps.length < 2 ? steps : steps.filter((step) => step.id !== id)));

/** A step one place earlier or later. */
export const moveStep = (design: FormDesign, id: string, way: -1 | 1): FormDesign =>
  withSteps(design, (steps) => movedById(steps, id, way));

/** Another one at a place among those who are asked; null takes that one away, while somebody is left. */
export function changeSeat(seats: readonly SeatPlan[], place: number, seat: SeatPlan | null): readonly SeatPlan[] {
  if (seat) return seats.map((each, at) => (at === place ? seat : each));
  return seats.length < 2 ? seats : seats.filter((_, at) => at !== place);
}

/** Whom one is asked to ask besides: the same group once more where nothing else is there, for two of its members. */
export function seatBesides(seats: readonly SeatPlan[], groups: readonly string[]): SeatPlan {
  const asked = seats.map(wordOf);
  const other = groups.find((group) => !asked.includes(group)) ?? groups[0];
  return other === undefined ? (seats[0] ?? { group: '' }) : { group: other };
}
