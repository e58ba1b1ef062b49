import { type DecidesBy, mayNotDecide, NOBODY } from '@tolvek/core/approval';
import type { Viewer } from '@tolvek/core/people';
import type { Words } from '@tolvek/words';
import { asked, type Round, type SeatRow, seatFor, stepOf, stepOfSeat } from '../approval/queries.ts';
import type { Reader } from '../platform/database.ts';

/** The decision on a request as pages tell of it: at the step its round is at, or ended at. */
export interface Decision {
  /** It follows from silence. */
  readonly silently: boolean;
  /** Since when its step is asked, and until when it is decided; null where that is not said. */
  readonly since: number | null;
  readonly until: number | null;
  readonly label: string;
  /** Who is asked, or was: words of groups and persons. */
  readonly holders: readonly string[];
  readonly state: 'waiting' | 'approved' | 'refused' | 'withdrawn';
  readonly decidedBy: string | null;
  readonly decidedAt: number | null;
  readonly comment: string | null;
}

const lastOf = (seats: readonly SeatRow[]): SeatRow | undefined =>
  seats.filter(({ decidedAt }) => decidedAt !== null).toSorted((a, b) => (b.decidedAt ?? 0) - (a.decidedAt ?? 0))[0];

export function decisionIn(round: Round): Decision {
  const step = stepOf(round);
  const isOpen = round.state === 'open';
  const last = round.state === 'withdrawn' ? undefined : lastOf(step.seats);
  return {
    label: step.label,
    since: askedSince(round)[round.steps.indexOf(step)] ?? null,
    until: step.dueAt,
    silently: !isOpen && step.silently !== null,
    holders: step.seats
      .filter(({ state }) => !isOpen || state === 'open')
      .flatMap(({ holder }) => (holder === NOBODY ? [] : [holder])),
    state: round.state === 'open' ? 'waiting' : round.state,
    decidedBy: isOpen ? null : (last?.decidedBy ?? round.endedBy),
    decidedAt: isOpen ? null : (last?.decidedAt ?? round.endedAt),
    comment: isOpen ? null : (last?.comment ?? round.why),
  };
}

/** When a step was over: with the last verdict, or with its time where silence decided it; null where it is not. */
const overAt = ({ silently, dueAt, seats }: Round['steps'][number]): number | null =>
  silently === null ? (lastOf(seats)?.decidedAt ?? null) : dueAt;

/** Since when each step of a round is asked (Unix milliseconds): from when the one before was over; null while it is ahead. */
export function askedSince({ openedAt, steps }: Round): readonly (number | null)[] {
  let from: number | null = openedAt;
  return steps.map((step) => {
    const isAhead =
      step.silently === null &&
      step.seats.every(({ state, decidedAt }) => state === 'ahead' || (state === 'closed' && decidedAt === null));
    const since = isAhead ? null : from;
    from = overAt(step);
    return since;
  });
}

/** Why somebody may not decide in a round just now; null when they may. */
export function whyNotDecide(
  db: Reader,
  round: Round,
  viewer: Viewer,
  whose: readonly (string | null)[],
  by: DecidesBy = 'seat',
): Words | null {
  const seat = seatFor(db, round, viewer, by);
  return mayNotDecide(asked(stepOfSeat(round, seat), seat), viewer, whose, by)?.reason ?? null;
}
