import { type Around, leadsTo, NOBODY, seatedBy, seatOf } from '@tolvek/core/approval';
import { wordOf } from '@tolvek/core/people';
import type { SeatGiven } from '@tolvek/core/request';
import { endLimit, reminded, stopRinging } from '../approval/limits.ts';
import { heardAt, type Round, roundOf, type StepRow, settleSilently, standingOf } from '../approval/queries.ts';
import { aroundOf } from '../approval/seating.ts';
import type { Work } from '../platform/work.ts';
import { changeRequest } from '../request/change.ts';
import type { RequestRow } from '../request/queries.ts';

/**
 * What happens at a step of a decision when its time comes: whoever has said nothing is reminded, or silence means what
 * its path says. What is decided by now, or stands still, rings no more.
 */
export function ringFor(work: Work, request: RequestRow, stepId: string): void {
  const { tx, now } = work;
  const round = roundOf(tx, request.id);
  const step = round?.steps.find(({ id }) => id === stepId);
  if (!round || !step?.limit || step.ringAt === null) {
    stopRinging(tx, stepId);
    return;
  }
  if (step.ringAt > now) return;
  const standing = standingOf(round);
  if (round.state !== 'open' || standing.state !== 'open' || round.steps[standing.step]?.id !== stepId) {
    endLimit(tx, step);
    return;
  }
  if (step.dueAt !== null && step.ringAt < step.dueAt) {
    reminded(tx, step);
    changeRequest(work, request, { kind: 'rang', timer: 'decide-reminder' });
    return;
  }
  silence(work, request, { round, step, means: step.limit.silence });
}

interface Silent {
  readonly round: Round;
  readonly step: StepRow;
  readonly means: NonNullable<StepRow['limit']>['silence'];
}

function silence(work: Work, request: RequestRow, { round, step, means }: Silent): void {
  const { tx, now } = work;
  const { label } = step;
  if (means === 'agree' || means === 'refuse') {
    const before = standingOf(round);
    settleSilently(tx, step, means === 'agree' ? 'approved' : 'refused');
    const after = roundOf(tx, request.id) ?? round;
    changeRequest(work, request, {
      ...{ kind: 'decided', step: label, verdict: means === 'agree' ? 'approve' : 'refuse', comment: '', silent: true },
      leadsTo: leadsTo(before, standingOf(after)),
      ...(round.fromStage === null ? {} : { to: round.fromStage }),
    });
    return;
  }
  endLimit(tx, step);
  const gives = means === 'pass' ? passedOn(step, aroundOf(tx, request, now)) : [];
  changeRequest(work, request, { kind: 'silent', step: label, gives });
}

/** The open seats of a step, each given to the next who can decide among those after whoever holds it. */
function passedOn(step: StepRow, around: Around): readonly SeatGiven[] {
  const { seats, instead } = step;
  const open = seats.filter(({ state }) => state === 'open');
  const holding = open.flatMap(({ holder }) => (holder === NOBODY ? [] : [holder]));
  const next = open.map(({ holder, planned }) => {
    const inTurn = [planned ?? holder, ...(instead ?? [])];
    const words = inTurn.map((word) => {
      const named = around.named(seatOf(word));
      return named === null ? null : wordOf(named);
    });
    const after = inTurn.slice(words.indexOf(holder) + 1);
    return after.map(seatOf).filter((seat) => {
      const named = around.named(seat);
      return named !== null && !holding.includes(wordOf(named));
    });
  });
  const seated = seatedBy(next, { ...around, whose: [...around.whose, ...heardAt(step)] });
  return open.flatMap(({ id, holder }, at) => {
    const found = seated[at];
    return found ? [{ seat: id, from: holder, to: wordOf(found.holder) }] : [];
  });
}
