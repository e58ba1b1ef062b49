import {
  type ApprovalPath,
  type ApprovalStep,
  allSteps,
  type SeatPlan,
  seatWord,
  type TimeLimit,
  withAgain,
  withStepsOf,
} from '@tolvek/core/approval';
import { type FormDesign, freshKey } from '@tolvek/core/form';
import { requestScope } from '@tolvek/core/register';
import { allThatMayBe } from '@tolvek/core/routing';
import { movedById } from './edits.ts';
import { HOUR } from './hours.ts';

const withPaths = (
  design: FormDesign,
  edit: (paths: readonly ApprovalPath[]) => readonly ApprovalPath[],
): FormDesign => ({ ...design, approval: { paths: edit(design.approval.paths) } });

const editPath = (design: FormDesign, id: string, edit: (path: ApprovalPath) => ApprovalPath): FormDesign =>
  withPaths(design, (paths) => paths.map((path) => (path.id === id ? edit(path) : path)));

/** The steps of the path that a step belongs to, edited. */
const besideStep = (
  design: FormDesign,
  id: string,
  edit: (steps: readonly ApprovalStep[]) => readonly ApprovalStep[],
): FormDesign =>
  withPaths(design, (paths) =>
    paths.map((path) => (path.steps.some((step) => step.id === id) ? { ...path, steps: edit(path.steps) } : path)),
  );

/** A step that is edited; as many have to agree as before, as far as so many are asked. What says nothing is left out. */
export const editStep = (design: FormDesign, id: string, edit: Partial<Omit<ApprovalStep, 'id'>>): FormDesign => ({
  ...design,
  approval: withStepsOf(design.approval, (step) => (step.id === id ? settled({ ...step, ...edit }) : step)),
});

function settled({ when, instead, against, limit, ...step }: ApprovalStep): ApprovalStep {
  const needed = Math.max(1, Math.min(step.needed, step.seats.length));
  const counts = against !== undefined && against < step.seats.length - needed;
  return {
    ...{ ...step, needed },
    ...(instead && instead.length > 0 ? { instead } : {}),
    ...(counts ? { against } : {}),
    ...(limit ? { limit } : {}),
    ...(when === undefined || when.trim() === '' ? {} : { when }),
  };
}

/** What the next step is called that is added. */
export const freshStep = ({ approval }: FormDesign): string =>
  freshKey('step', new Set(allSteps(approval).map(({ id }) => id)));

/** Another step after all others of a path, which asks whom it is given. */
export const addStep = (design: FormDesign, path: string, label: string, seat: SeatPlan): FormDesign =>
  editPath(design, path, (each) => ({
    ...each,
    steps: [...each.steps, { id: freshStep(design), label, seats: [seat], needed: 1 }],
  }));

/** A path without a step; the last one stays, for nobody could decide. */
export const removeStep = (design: FormDesign, id: string): FormDesign =>
  besideStep(design, id, (steps) => (steps.length < 2 ? steps : steps.filter((step) => step.id !== id)));

/** A step one place earlier or later. */
export const moveStep = (design: FormDesign, id: string, way: -1 | 1): FormDesign =>
  besideStep(design, id, (steps) => movedById(steps, id, way));

/** Another path of one step, which rows can choose. */
export const addPath = (design: FormDesign, label: string, step: string, seat: SeatPlan): FormDesign =>
  withPaths(design, (paths) => [
    ...paths,
    {
      id: freshKey('path', new Set(paths.map(({ id }) => id))),
      label,
      steps: [{ id: freshStep(design), label: step, seats: [seat], needed: 1 }],
    },
  ]);

export const namePath = (design: FormDesign, id: string, label: string): FormDesign =>
  editPath(design, id, (path) => ({ ...path, label }));

/** The fields by whose change a path is begun anew. */
export const askAgain = (design: FormDesign, id: string, fields: readonly string[]): FormDesign =>
  editPath(design, id, (path) => withAgain(path, fields));

/** Without a path that no row chooses; the last one stays. */
export const removePath = (design: FormDesign, id: string): FormDesign =>
  design.approval.paths.length < 2 || allThatMayBe(design.routing, 'path', () => requestScope(design.fields)).has(id)
    ? design
    : withPaths(design, (paths) => paths.filter((path) => path.id !== id));

/** Another one at a place among those who are asked; null takes that one away, while somebody is left. */
export function changeSeat(seats: readonly SeatPlan[], place: number, seat: SeatPlan | null): readonly SeatPlan[] {
  if (seat) return seats.map((each, at) => (at === place ? seat : each));
  return seats.length < 2 ? seats : seats.filter((_, at) => at !== place);
}

/** Whom one is asked to ask besides: the same group once more where nothing else is there, for two of its members. */
export function seatBesides(seats: readonly SeatPlan[], groups: readonly string[]): SeatPlan {
  const asked = seats.map(seatWord);
  const other = groups.find((group) => !asked.includes(group)) ?? groups[0];
  return other === undefined ? (seats[0] ?? { group: '' }) : { group: other };
}

/** Two days of eight hours, when a step gets an end. */
const AT_FIRST: TimeLimit = { within: 16 * HOUR, remind: 4 * HOUR, silence: 'tell' };

/** An end for a step that had none; silence passes its seats on where somebody decides instead. */
export const firstLimit = ({ instead = [] }: Pick<ApprovalStep, 'instead'>): TimeLimit =>
  instead.length > 0 ? { ...AT_FIRST, silence: 'pass' } : AT_FIRST;

/** An end with other hours of working time; a reminder that would come before the beginning is none. */
export function withHours(limit: TimeLimit, hours: { readonly within?: number; readonly remind?: number }): TimeLimit {
  const within = Math.max(HOUR, (hours.within ?? limit.within / HOUR) * HOUR);
  const remind = (hours.remind ?? (limit.remind ?? 0) / HOUR) * HOUR;
  const { silence } = limit;
  return remind > 0 && remind < within ? { within, remind, silence } : { within, silence };
}
