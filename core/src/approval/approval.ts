import { said, type Words } from '@tolvek/words';
import { type Holder, holderOf, seatsHeldBy, type Viewer } from '../people/index.ts';

/** Who is asked at a step: any member of a group decides for it, or one person. */
export type SeatPlan = Holder;

/** Some who are asked at the same time, and how many of them have to approve. */
export interface ApprovalStep {
  readonly id: string;
  readonly label: string;
  readonly seats: readonly SeatPlan[];
  /** From 1 to the number of seats. */
  readonly needed: number;
  /** FEEL over the fields, `requester`, `door`, `today` and `now`: asked only where it holds; always when nothing is said. */
  readonly when?: string | undefined;
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

/** By what somebody decides: by a seat of theirs, or by the right to decide for whoever is asked. */
export type DecidesBy = 'seat' | 'right';

/** Why somebody may not decide at a seat: a reason and a way out; null when they may. */
export function mayNotDecide(
  /** `holder`: who decides at it, as one word; `decidedBeside`: who decided at its step. */
  seat: { readonly state: SeatState; readonly holder: string; readonly decidedBeside: readonly string[] },
  viewer: Viewer,
  /** Whose request it is: who asked, and on whose behalf. */
  whose: readonly (string | null)[],
  by: DecidesBy = 'seat',
): { reason: Words; fix: Words } | null {
  if (seat.state !== 'open') return { reason: SHUT[seat.state], fix: said('answers:openToSee') };
  if (whose.includes(viewer.personId))
    return {
      reason: said('answers:notYourOwn'),
      fix: 'group' in holderOf(seat.holder) ? said('answers:otherMember') : said('answers:otherDecider'),
    };
  if (seat.decidedBeside.includes(viewer.personId))
    return { reason: said('answers:decidedAlready'), fix: said('answers:secondPerson') };
  if (by === 'seat' && !seatsHeldBy(viewer).includes(seat.holder))
    return 'group' in holderOf(seat.holder)
      ? {
          reason: said('answers:onlyGroup'),
          fix: said('answers:askGroup'),
        }
      : {
          reason: said('answers:onlyPerson'),
          fix: said('answers:askPerson'),
        };
  return null;
}

const SHUT: Readonly<Record<Exclude<SeatState, 'open'>, Words>> = {
  ahead: said('answers:stepAhead'),
  approved: said('answers:wasApproved'),
  refused: said('answers:wasRefused'),
  closed: said('answers:noLongerNeeded'),
};

/** A refusal needs a reason the requester can act on; whoever decides for another says why. */
export function verdictProblem(
  verdict: Verdict,
  comment: string,
  by: DecidesBy = 'seat',
): { field: 'comment'; message: Words; fix: Words } | null {
  if (by === 'right' && comment.trim() === '')
    return { field: 'comment', message: said('answers:insteadNeedsReason'), fix: said('answers:sayWhyInstead') };
  return verdict === 'refuse' && comment.trim() === ''
    ? {
        field: 'comment',
        message: said('answers:refusalNeedsReason'),
        fix: said('answers:sayWhy'),
      }
    : null;
}
