import { type Holder, holderOf, holdersOf, type Viewer } from '../people/index.ts';

/** Who is asked at a step: any member of a group decides for it, or one person. */
export type SeatPlan = Holder;

/** Some who are asked at the same time, and how many of them have to approve. */
export interface ApprovalStep {
  readonly id: string;
  readonly label: string;
  readonly seats: readonly SeatPlan[];
  /** From 1 to the number of seats. */
  readonly needed: number;
}

/** What must be decided, by whom: steps in turn. */
export interface ApprovalPath {
  readonly steps: readonly ApprovalStep[];
}

export type Verdict = 'approve' | 'refuse';

/** A step with what was said so far: null for a seat that has not decided. */
export interface StepSoFar {
  readonly needed: number;
  readonly verdicts: readonly (Verdict | null)[];
}

/** Where a round stands: at which of its steps, or how it ended there. */
export type Standing = {
  readonly state: 'open' | 'approved' | 'refused';
  /** Index of the step that is open, or that ended it. */
  readonly step: number;
};

/** What a verdict leads to: the end of its round, the next step, or the others of the same step. */
export type LeadsTo = 'approved' | 'refused' | 'next-step' | 'same-step';

/**
 * Where a round of steps stands. Steps come in turn; within one all are asked at once. A step is
 * approved by as many as it needs, and refused as soon as so many can’t be reached any more; the
 * first refused step ends the round.
 *
 * @throws RangeError for a path without steps: nobody could ever decide it.
 */
export function whatNow(steps: readonly StepSoFar[]): Standing {
  if (steps.length === 0) throw new RangeError('A path needs a step.');
  const states = steps.map(stateOf);
  const at = states.findIndex((state) => state !== 'approved');
  const step = at < 0 ? steps.length - 1 : at;
  return { state: states[step] ?? 'open', step };
}

function stateOf({ needed, verdicts }: StepSoFar): Standing['state'] {
  const said = (which: Verdict | null): number => verdicts.filter((verdict) => verdict === which).length;
  if (said('approve') >= needed) return 'approved';
  return said('approve') + said(null) < needed ? 'refused' : 'open';
}

/** What the verdict that turned `before` into `after` leads to. */
export function leadsTo(before: Standing, after: Standing): LeadsTo {
  if (after.state !== 'open') return after.state;
  return after.step === before.step ? 'same-step' : 'next-step';
}

export type SeatState = 'ahead' | 'open' | 'approved' | 'refused' | 'closed';

/** Why somebody may not decide at a seat: a reason and a way out; null when they may. */
export function mayNotDecide(
  /** `holder`: who decides at it, as one word; `decidedBeside`: who decided at its step. */
  seat: { readonly state: SeatState; readonly holder: string; readonly decidedBeside: readonly string[] },
  viewer: Viewer,
  requesterId: string | null,
): { reason: string; fix: string } | null {
  if (seat.state !== 'open') return { reason: SHUT[seat.state], fix: 'Open the request to see who decided, and why.' };
  if (viewer.personId === requesterId)
    return {
      reason: 'Nobody decides their own request.',
      fix:
        'group' in holderOf(seat.holder)
          ? 'Another member of the group has to decide.'
          : 'Ask the coordinator to free it, or to have somebody else decide.',
    };
  if (seat.decidedBeside.includes(viewer.personId))
    return { reason: 'You have decided at this step already.', fix: 'Somebody else has to decide beside you.' };
  if (!holdersOf(viewer).includes(seat.holder))
    return 'group' in holderOf(seat.holder)
      ? {
          reason: 'Only members of the deciding group can decide this.',
          fix: 'Ask one of them, or ask the coordinator to add you.',
        }
      : {
          reason: 'Only the person who was asked can decide this.',
          fix: 'Ask them, or ask the coordinator to free it.',
        };
  return null;
}

const SHUT: Readonly<Record<Exclude<SeatState, 'open'>, string>> = {
  ahead: 'This is not to be decided yet.',
  approved: 'This was already approved.',
  refused: 'This was already refused.',
  closed: 'This needs no decision any more.',
};

/** A refusal needs a reason the requester can act on. */
export function verdictProblem(
  verdict: Verdict,
  comment: string,
): { field: 'comment'; message: string; fix: string } | null {
  return verdict === 'refuse' && comment.trim() === ''
    ? {
        field: 'comment',
        message: 'A refusal needs a reason.',
        fix: 'Say in a sentence why, and what the requester could do instead.',
      }
    : null;
}
