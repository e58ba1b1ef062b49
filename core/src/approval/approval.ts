import { said, type Words } from '@tolvek/words';
import { type Holder, holderOf, seatsHeldBy, type Viewer, wordOf } from '../people/index.ts';

/**
 * Who is asked at a step: any member of a group decides for it, one person, whoever is named in a field for a person of
 * the request, or in such a field of the profile of whoever asks, or who is on duty by a roster when it is asked.
 */
export type SeatPlan = Holder | { readonly field: string } | { readonly profile: string } | { readonly duty: string };

/** What silence means once the time of a step is over: see `silenceOf`. */
export const SILENCES = ['tell', 'pass', 'agree', 'refuse'] as const;
export type Silence = (typeof SILENCES)[number];

/** Until when a step is decided, and what comes of it when it is not. */
export interface TimeLimit {
  /** ms of working time, counted from when the step is asked. */
  readonly within: number;
  /** ms of working time before the end at which whoever has said nothing is reminded; not at all when nothing is said. */
  readonly remind?: number | undefined;
  /**
   * `tell`: whoever has said nothing is reminded, and those who hear of delays are told. `pass`: their seats are
   * given to those who decide instead. `agree`: the step counts as approved. `refuse`: as refused.
   */
  readonly silence: Silence;
}

/** Some who are asked at the same time, and how many of them have to approve. */
export interface ApprovalStep {
  readonly id: string;
  readonly label: string;
  readonly seats: readonly SeatPlan[];
  /** From 1 to the number of seats. */
  readonly needed: number;
  /** Who decides in place of somebody who can’t, in order: the first who can. Nobody when nothing is said. */
  readonly instead?: readonly SeatPlan[] | undefined;
  /** With more than so many against it is refused at once, however many agree; that counts for nothing when nothing is said. */
  readonly against?: number | undefined;
  /** However long it takes when nothing is said. */
  readonly limit?: TimeLimit | undefined;
  /** FEEL over the fields, `requester`, `door`, `today` and `now`: asked only where it holds; always when nothing is said. */
  readonly when?: string | undefined;
}

/** What must be decided, by whom: steps in turn. */
export interface ApprovalPath {
  readonly id: string;
  /** What it is called where there are several; by its steps when empty. */
  readonly label: string;
  readonly steps: readonly ApprovalStep[];
  /** Keys of fields: who decides is asked again when one of them changes afterwards. None when nothing is said. */
  readonly again?: readonly string[] | undefined;
}

/** The paths that rows of a routing table choose from; steps have ids of their own in all of them. */
export interface ApprovalPlan {
  readonly paths: readonly ApprovalPath[];
}

/** The path that a form begins with. */
export const FIRST_PATH = 'path';

/** The steps of all paths. */
export const allSteps = ({ paths }: ApprovalPlan): readonly ApprovalStep[] => paths.flatMap(({ steps }) => steps);

/** A plan with its steps made others, wherever they are. */
export const withStepsOf = ({ paths }: ApprovalPlan, edit: (step: ApprovalStep) => ApprovalStep): ApprovalPlan => ({
  paths: paths.map((path) => ({ ...path, steps: path.steps.map(edit) })),
});

/** A path by whose decision others are asked again when some fields change; nothing is said of it where none is named. */
export const withAgain = ({ again: _, ...path }: ApprovalPath, fields: readonly string[]): ApprovalPath =>
  fields.length > 0 ? { ...path, again: fields } : path;

/** What a path is called: its name, or its steps, one after the other. */
export const pathName = ({ label, steps }: Pick<ApprovalPath, 'label' | 'steps'>): Words =>
  label.trim() === '' ? said('answers:stepsInTurn', { steps: steps.map((step) => step.label) }) : label;

/** All whom a step can ask: those of its seats, and those who decide instead. */
export const seatsPlanned = ({ seats, instead = [] }: Pick<ApprovalStep, 'seats' | 'instead'>): readonly SeatPlan[] => [
  ...seats,
  ...instead,
];

export const isHolder = (seat: SeatPlan): seat is Holder => 'group' in seat || 'person' in seat;

/** The holders that a plan names itself, in all its steps. */
export const holdersPlanned = (plan: ApprovalPlan): readonly Holder[] =>
  allSteps(plan).flatMap((step) => seatsPlanned(step).filter(isHolder));

/** The rosters whose people on duty a plan asks, by key. */
export const rostersOfApproval = (plan: ApprovalPlan): readonly string[] =>
  allSteps(plan).flatMap((step) => seatsPlanned(step).flatMap((seat) => ('duty' in seat ? [seat.duty] : [])));

/** A seat as one word: that of its holder, `=` and a field of the request, `?` and a field of profiles, or `%` and a roster. */
export function seatWord(seat: SeatPlan): string {
  if ('field' in seat) return `=${seat.field}`;
  if ('profile' in seat) return `?${seat.profile}`;
  if ('duty' in seat) return `%${seat.duty}`;
  return wordOf(seat);
}

export function seatOf(word: string): SeatPlan {
  if (word.startsWith('=')) return { field: word.slice(1) };
  if (word.startsWith('?')) return { profile: word.slice(1) };
  if (word.startsWith('%')) return { duty: word.slice(1) };
  return holderOf(word);
}

export type Verdict = 'approve' | 'refuse';

/** A step with what was said so far: null for a seat that has not decided. */
export interface StepSoFar {
  readonly needed: number;
  readonly against?: number | null | undefined;
  /** What came of silence, whatever was said. */
  readonly silently?: 'approved' | 'refused' | null | undefined;
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
 * approved by as many as it needs, and refused as soon as so many can’t be reached any more, or more
 * are against than may be; the first refused step ends the round.
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

function stateOf({ needed, against, silently, verdicts }: StepSoFar): Standing['state'] {
  if (silently) return silently;
  const said = (which: Verdict | null): number => verdicts.filter((verdict) => verdict === which).length;
  if (said('refuse') > (against ?? verdicts.length)) return 'refused';
  if (said('approve') >= needed) return 'approved';
  return said('approve') + said(null) < needed ? 'refused' : 'open';
}

/** What the verdict that turned `before` into `after` leads to. */
export function leadsTo(before: Standing, after: Standing): LeadsTo {
  if (after.state !== 'open') return after.state;
  return after.step === before.step ? 'same-step' : 'next-step';
}

/** The word of a seat at which nobody can decide: neither a key of a group nor a person is called so. */
export const NOBODY = '!';

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
  if (by === 'seat' && seat.holder === NOBODY)
    return { reason: said('answers:nobodyHolds'), fix: said('answers:askCoordinatorInstead') };
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

/** A refusal needs a reason the requester can act on, a return what they are asked; whoever decides for another says why. */
export function verdictProblem(
  verdict: Verdict | 'return',
  comment: string,
  by: DecidesBy = 'seat',
): { field: 'comment'; message: Words; fix: Words } | null {
  if (verdict === 'return' && comment.trim() === '')
    return { field: 'comment', message: said('answers:returnNeedsQuestion'), fix: said('answers:sayWhatIsMissing') };
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
