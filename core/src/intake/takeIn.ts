import { type ApprovalPath, type PathFor, preparePaths } from '../approval/index.ts';
import { type Course, type PlannedDeadline, prepareCourse, type WorkingCalendar } from '../deadline/index.ts';
import { type Admission, admit, type Comer, type Coming, type DoorDesign, type DoorLimit } from '../door/index.ts';
import { type FormDesign, prepareCompletion, refusalsOf } from '../form/index.ts';
import {
  type Problem,
  type RawAnswers,
  type RequestFacts,
  requestScope,
  requestSlots,
  type Values,
  withoutRowIds,
} from '../register/index.ts';
import { type KeptRouting, keptRouting, prepareRouting, type Routed, type Router } from '../routing/index.ts';

export interface IntakeContext {
  readonly now: number;
  readonly calendar: WorkingCalendar;
  /** The others that deadlines count by, by key; the form’s own when nothing is said. */
  readonly calendarOf?: (key: string) => WorkingCalendar;
  readonly facts: RequestFacts;
  readonly requester: Comer;
  /** Since when they have been filling in, and when the door was closed by hand, as far as the house knows. */
  readonly came?: Omit<Coming, 'now' | 'zone'>;
  /** How many requests count against a limit of the door. */
  readonly used: (limit: DoorLimit) => number;
  /** Things are neither routed nor decided, and nothing about them is due; requests when nothing is said. */
  readonly holds?: 'requests' | 'things';
}

/** What a submission comes to; the caller stores all of it at once. */
export interface TakenIn {
  readonly values: Values;
  /** Null for things. */
  readonly routed: Routed | null;
  /** What is kept of it. */
  readonly routing: KeptRouting | null;
  /** Who decides, in which turn; null when no decision is needed. */
  readonly approval: ApprovalPath | null;
  /** What it is due by, by the keys of the plan; none for things. */
  readonly deadlines: readonly PlannedDeadline[];
}

export type Intake =
  | { readonly taken: true; readonly request: TakenIn; readonly values: Values }
  | { readonly taken: false; readonly refusal: Extract<Admission, { admitted: false }> }
  /** `values`: what the answers come to as far as they are right. */
  | { readonly taken: false; readonly problems: readonly Problem[]; readonly values: Values };

/** A release, compiled: what answers come to, by which row they go, and the whole way in. */
export interface PreparedForm {
  readonly complete: ReturnType<typeof prepareCompletion>;
  readonly route: Router;
  /** Who decides on a request, by the path that its row names. */
  readonly pathFor: PathFor;
  /** What becomes of its deadlines as things happen. */
  readonly course: Course;
  readonly takeIn: (door: DoorDesign | null, answers: RawAnswers, context: IntakeContext) => Intake;
}

/**
 * Prepares the whole way of a request for one release: admit → complete → route → plan approval →
 * plan deadline. `door`: null where the desk takes it in itself, and nobody has to be admitted.
 */
export function prepareIntake(design: FormDesign): PreparedForm {
  const complete = prepareCompletion(design);
  const scope = requestScope(design.fields);
  const route = prepareRouting(design.routing, scope);
  const pathFor = preparePaths(design.approval, scope);
  const course = prepareCourse(design.deadline, scope);
  const takeIn: PreparedForm['takeIn'] = (door, answers, context) => {
    const admission =
      door &&
      admit(door, context.requester, { ...context.came, now: context.now, zone: context.calendar.zone }, context.used);
    if (admission?.admitted === false) return { taken: false, refusal: admission };
    const completion = complete(answers, context.facts);
    const problems = refusalsOf(completion);
    const values = withoutRowIds(design.fields, completion.values);
    if (problems.length > 0) return { taken: false, problems, values };
    if (context.holds === 'things')
      return { taken: true, values, request: { values, routed: null, routing: null, approval: null, deadlines: [] } };
    const slots = requestSlots(design.fields, values, context.facts);
    const routed = route(slots);
    // What begins in a stage begins where it is known at which it is.
    const begun = course(new Map(), {
      ...{ now: context.now, at: { stage: '', phase: 'arrived' }, before: null, changed: true, answered: false },
      ...{ row: () => routed.outcome, values, slots: () => slots },
      calendar: context.calendarOf ?? (() => context.calendar),
    });
    return {
      taken: true,
      values,
      request: {
        values,
        routed,
        routing: keptRouting(routed, route, values, context.facts),
        approval: pathFor(routed.outcome.path, slots),
        deadlines: [...begun].map(([key, { deadline }]) => ({ key, deadline })),
      },
    };
  };
  return { complete, route, pathFor, course, takeIn };
}
