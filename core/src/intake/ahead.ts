import { type ApprovalPath, type ApprovalStep, preparePaths } from '../approval/index.ts';
import {
  addWorkingTime,
  calendarFor,
  type DeadlineRule,
  endOfWorkingDay,
  FINISH,
  prepareCourse,
  type Running,
  reached,
  subtractWorkingTime,
  timersFor,
  type WorkingCalendar,
} from '../deadline/index.ts';
import type { Scope, Slots } from '../expression/index.ts';
import type { FormDesign } from '../form/index.ts';
import { type Phase, type Stage, stageToBegin, type Values } from '../register/index.ts';
import type { RoutingSaid } from '../routing/index.ts';

/** A stage that a request comes to; epoch ms. */
export interface AheadStage {
  readonly key: string;
  readonly at: number;
}

/** A step of the decision: from when to when it is asked. */
export interface AheadStep {
  readonly step: ApprovalStep;
  /** Whether its condition holds; what does not hold takes no time. */
  readonly isAsked: boolean;
  readonly from: number;
  /** When its time is over; null where it has no end. */
  readonly until: number | null;
  /** When it counts as decided here: when its time is over, else a working day later; at once where it is not asked. */
  readonly ends: number;
  /** When whoever has said nothing is reminded; null where nobody is. */
  readonly remind: number | null;
}

/** A moment around one a deadline is due at; what comes after it comes only where it was not kept. */
export interface AheadRing {
  readonly key: string;
  readonly at: number;
  readonly isLate: boolean;
}

export interface AheadDeadline {
  readonly rule: DeadlineRule;
  readonly from: number;
  readonly due: number;
  /** When it ends by its own rule in this life; null where it ends with the request, or by an answer. */
  readonly over: number | null;
  readonly rings: readonly AheadRing[];
}

/**
 * The life of a request as it is planned: each step is decided when its time is over, nothing waits for whoever asked,
 * and it is finished when it is due.
 */
export interface Ahead {
  readonly from: number;
  readonly to: number;
  readonly stages: readonly AheadStage[];
  readonly steps: readonly AheadStep[];
  readonly deadlines: readonly AheadDeadline[];
  /** Deadlines that begin in none of these stages, or whose condition does not hold, or that nothing says yet. */
  readonly others: readonly DeadlineRule[];
}

/** A stage, as far as the life of a request goes by it. */
interface At extends Pick<Stage, 'key' | 'phase' | 'retired'> {
  readonly role?: string | null;
}

interface Asked {
  /** When it arrives, epoch ms. */
  readonly at: number;
  /** What the row of the routing table comes to by which it goes. */
  readonly outcome: Pick<RoutingSaid, 'path' | 'workingDays' | 'deadlines' | 'stage'>;
  readonly stages: readonly At[];
  readonly values: Values;
  readonly slots: Slots;
  /** A calendar by its key. */
  readonly calendar: (key: string) => WorkingCalendar;
}

type Planned = Pick<FormDesign, 'approval' | 'deadline'>;

/** How the life of a request of a form would go; prepared once for a form. */
export function prepareAhead(design: Planned, scope: Scope): (asked: Asked) => Ahead {
  const pathFor = preparePaths(design.approval, scope);
  const course = prepareCourse(design.deadline, scope);
  return (asked) => {
    const { at, outcome, calendar } = asked;
    const form = calendar(design.deadline.calendar);
    const path = design.approval.paths.find(({ id }) => id === outcome.path) ?? null;
    const steps = stepsOf(path, pathFor(outcome.path, asked.slots), form, at);
    const decided = steps.findLast(({ isAsked }) => isAsked);
    const stages = stagesOf(asked.stages, outcome.stage, at, decided?.ends ?? null);

    // What begins, stands and ends is found by what finds it for real, at each of these moments.
    const lived = (): ReadonlyMap<string, Running> => {
      let running: ReadonlyMap<string, Running> = new Map();
      for (const [index, { stage, at: now }] of stages.entries()) {
        const before = stages[index - 1]?.stage ?? null;
        running = course(running, {
          ...{ now, at: placed(stage), before: before && placed(before), changed: index === 0, answered: false },
          ...{ row: () => outcome, values: asked.values, slots: () => asked.slots, calendar },
        });
      }
      return running;
    };
    // Where a calendar is never open again, nothing is due by it.
    const running = reached(lived) ?? new Map<string, Running>();
    const deadlines = design.deadline.deadlines.flatMap((rule): AheadDeadline[] => {
      const found = running.get(rule.key);
      if (!found) return [];
      const { deadline, endedAt } = found;
      const rings = timersFor(deadline, rule, calendar(calendarFor(design.deadline, rule))).map(
        ({ ring, at: rung }) => ({
          ...{ key: ring, at: rung, isLate: rung >= deadline.due },
        }),
      );
      return [{ rule, from: deadline.start, due: deadline.due, over: endedAt, rings }];
    });
    const finish = deadlines.find(({ rule }) => rule.key === FINISH)?.due ?? at;
    const last = Math.max(finish, stages.at(-1)?.at ?? at);
    const done =
      asked.stages.find(({ role }) => role === 'done') ?? asked.stages.find(({ phase }) => phase === 'finished');
    const moments = deadlines.flatMap(({ due, rings }) => [due, ...rings.map((ring) => ring.at)]);
    return {
      ...{ from: at, to: Math.max(last, ...moments), steps, deadlines },
      stages: [
        ...stages.map(({ stage: { key }, at: came }) => ({ key, at: came })),
        ...(done ? [{ key: done.key, at: last }] : []),
      ],
      others: design.deadline.deadlines.filter(({ key }) => !running.has(key)),
    };
  };
}

const placed = ({ key, phase }: At): { readonly stage: string; readonly phase: Phase } => ({ stage: key, phase });

/** The steps of a path in turn, each from when the one before is decided. */
function stepsOf(
  path: ApprovalPath | null,
  asked: ApprovalPath | null,
  calendar: WorkingCalendar,
  at: number,
): readonly AheadStep[] {
  const ids = new Set(asked?.steps.map(({ id }) => id));
  let from = at;
  return (path?.steps ?? []).map((step): AheadStep => {
    const isAsked = ids.has(step.id);
    const { limit } = step;
    const until = isAsked && limit ? later(calendar, from, limit.within) : null;
    const remind = until !== null && limit?.remind !== undefined ? earlier(calendar, until, limit.remind) : null;
    const ends = isAsked ? (until ?? reached(() => endOfWorkingDay(calendar, from, 1)) ?? from) : from;
    const ahead = { step, isAsked, from, until, ends, remind: remind !== null && remind > from ? remind : null };
    from = ends;
    return ahead;
  });
}

/** To be decided, where it is; then where its row has the work begin, or where requests arrive. */
function stagesOf(
  stages: readonly At[],
  wanted: string | undefined,
  at: number,
  decided: number | null,
): readonly { readonly stage: At; readonly at: number }[] {
  const first = stageToBegin(stages, wanted);
  const deciding = stages.find(({ role }) => role === 'deciding');
  if (decided === null || !deciding) return first ? [{ stage: first, at }] : [];
  return [{ stage: deciding, at }, ...(first ? [{ stage: first, at: decided }] : [])];
}

const later = (calendar: WorkingCalendar, from: number, ms: number): number | null =>
  reached(() => addWorkingTime(calendar, from, ms));
const earlier = (calendar: WorkingCalendar, from: number, ms: number): number | null =>
  reached(() => subtractWorkingTime(calendar, from, ms));
