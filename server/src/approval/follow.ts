import type { ApprovalPath } from '@tolvek/core/approval';
import { wordOf } from '@tolvek/core/people';
import { and, eq, inArray } from 'drizzle-orm';
import { holderNow } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Transaction } from '../platform/database.ts';
import { dropLinks } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import type { Work } from '../platform/work.ts';
import { decidersAre, type Follower } from '../request/change.ts';
import { type ShownRow, wordsKept } from '../request/queries.ts';
import { type Round, roundOf, standingOf } from './queries.ts';
import { approvalRounds, approvalSteps, seats } from './tables.ts';

/**
 * What arrives to be decided has its round: its first step is asked at once, the next when that is
 * approved, and nobody any more when it has ended. What a coordinator frees, or whoever asked
 * withdraws, waits for nobody.
 */
export const followApprovals: Follower = (work, request, change) => {
  if (change.kind === 'arrived' && change.taken?.approval) begin(work, request, change.taken.approval);
  if (change.kind === 'decided') return goOn(work, request);
  if (change.kind === 'freed' || change.kind === 'withdrawn') withdraw(work, request, change.reason);
  if (change.kind === 'decided-anew') return beginAnew(work, request, change.path);
  if (change.kind === 'seat') return handOverSeats(work, request, change);
  if (change.kind === 'same-person') return samePerson(work, request, change);
  return undefined;
};

const addRound = adding(approvalRounds);
const addStep = adding(approvalSteps);
const addSeat = adding(seats);

function begin({ tx, now }: Work, request: ShownRow, { steps }: ApprovalPath): void {
  const roundId = newId();
  addRound(tx, { id: roundId, requestId: request.id, state: 'open', openedAt: now });
  steps.forEach(({ id: key, label, needed, seats: planned }, place) => {
    const stepId = newId();
    addStep(tx, { id: stepId, roundId, place, key, label, needed });
    const state = place === 0 ? 'open' : 'ahead';
    for (const holder of planned)
      addSeat(tx, { id: newId(), stepId, requestId: request.id, holder: holderNow(tx, holder), state });
  });
}

/** What is decided anew waits for nobody of before. */
function beginAnew(work: Work, request: ShownRow, path: ApprovalPath | undefined): ShownRow | undefined {
  withdraw(work, request, '');
  if (!path) return undefined;
  begin(work, request, path);
  return decidersAre(work, request, path.steps[0]?.seats.map((seat) => holderNow(work.tx, seat)) ?? []);
}

/** Asks the next step when one is approved; nobody any more when the round has ended. */
function goOn(work: Work, request: ShownRow): ShownRow | undefined {
  const { tx, now } = work;
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open') return undefined;
  const { state, step: at } = standingOf(round);
  const current = state === 'open' ? at : -1;
  // A step that is over asks nobody who has not said anything yet.
  shut(
    tx,
    round.steps.flatMap((step, place) => (place === current || (place > at && state === 'open') ? [] : step.seats)),
  );
  if (state !== 'open') {
    tx.update(approvalRounds).set({ state, endedAt: now }).where(eq(approvalRounds.id, round.id)).run();
    return undefined;
  }
  const asked = round.steps[at]?.seats.filter((seat) => seat.state === 'ahead') ?? [];
  if (asked.length === 0) return undefined;
  tx.update(seats)
    .set({ state: 'open' })
    .where(
      inArray(
        seats.id,
        asked.map(({ id }) => id),
      ),
    )
    .run();
  return decidersAre(work, request, [
    ...round.steps.slice(0, at).flatMap((step) => step.seats.map(({ holder }) => holder)),
    ...asked.map(({ holder }) => holder),
  ]);
}

function withdraw({ tx, now, actor }: Work, request: ShownRow, why: string): void {
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open') return;
  shut(
    tx,
    round.steps.flatMap((step) => step.seats),
  );
  tx.update(approvalRounds)
    .set({ state: 'withdrawn', endedAt: now, endedBy: actor, why })
    .where(eq(approvalRounds.id, round.id))
    .run();
}

function shut(tx: Transaction, some: Round['steps'][number]['seats']): void {
  const left = some.filter(({ state }) => state === 'open' || state === 'ahead').map(({ id }) => id);
  if (left.length > 0) tx.update(seats).set({ state: 'closed' }).where(inArray(seats.id, left)).run();
}

/** Gives the seats that somebody has not decided at yet to somebody else, in every step of the open round. */
/** All seats of somebody, decided or not, are those of their other record. */
function samePerson(
  work: Work,
  request: ShownRow,
  { from, to }: { readonly from: string; readonly to: string },
): ShownRow | undefined {
  const [was, is] = [wordOf({ person: from }), wordOf({ person: to })];
  const { tx } = work;
  tx.update(seats)
    .set({ holder: is })
    .where(and(eq(seats.requestId, request.id), eq(seats.holder, was)))
    .run();
  tx.update(seats)
    .set({ decidedBy: to })
    .where(and(eq(seats.requestId, request.id), eq(seats.decidedBy, from)))
    .run();
  const words = wordsKept(request.deciders);
  return words.includes(was)
    ? decidersAre(
        work,
        request,
        words.map((word) => (word === was ? is : word)),
      )
    : undefined;
}

function handOverSeats(
  work: Work,
  request: ShownRow,
  { from, to }: { from: string; to: string },
): ShownRow | undefined {
  const round = roundOf(work.tx, request.id);
  if (round?.state !== 'open') return undefined;
  const [was, is] = [wordOf({ person: from }), wordOf({ person: to })];
  const left = round.steps.flatMap((step) =>
    step.seats.filter(({ holder, state }) => holder === was && (state === 'open' || state === 'ahead')),
  );
  if (left.length === 0) return undefined;
  const ids = left.map(({ id }) => id);
  work.tx.update(seats).set({ holder: is }).where(inArray(seats.id, ids)).run();
  const asked = round.steps.flatMap((step) => step.seats.filter(({ state }) => state !== 'ahead'));
  return decidersAre(work, request, [...new Set(asked.map(({ id, holder }) => (ids.includes(id) ? is : holder)))]);
}

/** Takes away the rounds of requests that are deleted, and the links by which they were decided on. */
export function dropRounds(tx: Transaction, requestIds: readonly string[]): void {
  const rounds = tx
    .select({ id: approvalRounds.id })
    .from(approvalRounds)
    .where(inArray(approvalRounds.requestId, [...requestIds]))
    .all()
    .map(({ id }) => id);
  const gone = tx
    .delete(seats)
    .where(inArray(seats.requestId, [...requestIds]))
    .returning({ id: seats.id })
    .all();
  dropLinks(
    tx,
    gone.map(({ id }) => id),
  );
  tx.delete(approvalSteps).where(inArray(approvalSteps.roundId, rounds)).run();
  tx.delete(approvalRounds).where(inArray(approvalRounds.id, rounds)).run();
}
