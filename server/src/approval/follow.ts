import { type ApprovalPath, NOBODY, seatsKept, seatWord } from '@tolvek/core/approval';
import { holderOf, wordOf } from '@tolvek/core/people';
import type { SeatGiven } from '@tolvek/core/request';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { personById } from '../people/queries.ts';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { dropLinks } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { links } from '../platform/tables.ts';
import type { Work } from '../platform/work.ts';
import { decidersAre, type Follower } from '../request/change.ts';
import type { Laid } from '../request/laid.ts';
import { byRequest, isBefore, type LaidPart, laidOf, missed, putBackRows } from '../request/layBy.ts';
import { type ShownRow, wordsKept } from '../request/queries.ts';
import { askWhenChanged } from './anew.ts';
import { beginLimit, endLimit, pauseLimit, resumeLimit } from './limits.ts';
import { type Round, roundOf, standingOf, stepOf } from './queries.ts';
import { aroundOf, seatedNow, seatsFor } from './seating.ts';
import { approvalRounds, approvalSteps, seats } from './tables.ts';

/**
 * What arrives to be decided has its round: its first step is asked at once, the next when that is
 * approved, and nobody any more when it has ended. What a coordinator frees, or whoever asked
 * withdraws, waits for nobody.
 */
export const followApprovals: Follower = (work, request, change, ...rest) => {
  const row = asked(work, request, change, ...rest);
  return AT_SEATS.has(change.kind) ? (letGo(work, row ?? request) ?? row) : row;
};

/** What changes who is asked. */
const AT_SEATS: ReadonlySet<string> = new Set([
  ...([
    'decided',
    'freed',
    'withdrawn',
    'merged',
    'sent-to-decide',
    'decided-anew',
    'values',
    'silent',
    'handed',
  ] as const),
]);

/** People from outside read a request as long as they are asked: who has decided, or is not asked any more, is let go of. */
function letGo(work: Work, request: ShownRow): ShownRow | undefined {
  const words = wordsKept(request.deciders);
  const { tx } = work;
  const isOutside = (word: string): boolean => {
    const holder = holderOf(word);
    return 'person' in holder && personById(tx, holder.person)?.kind === 'contact';
  };
  if (!words.some(isOutside)) return undefined;
  const open = roundOf(tx, request.id)?.steps.flatMap(({ seats: all }) => all.filter(({ state }) => state === 'open'));
  const isAsked = (word: string): boolean => open?.some(({ holder }) => holder === word) ?? false;
  return decidersAre(
    work,
    request,
    words.filter((word) => isAsked(word) || !isOutside(word)),
  );
}

const asked: Follower = (work, request, change) => {
  switch (change.kind) {
    case 'arrived':
      return change.taken?.approval
        ? begin(work, request, change.taken.approval, change.taken.routed?.outcome.stage)
        : undefined;
    case 'decided':
      return goOn(work, request);
    case 'freed':
    case 'withdrawn':
      return withdraw(work, request, change.reason);
    case 'merged':
      return withdraw(work, request, '');
    case 'sent-to-decide':
    case 'decided-anew': {
      // What is decided anew waits for nobody of before, and goes back to where it was before it was decided at all.
      const before = roundOf(work.tx, request.id);
      withdraw(work, request, '');
      const from = before?.state === 'open' ? before.fromStage : change.from;
      return change.path && begin(work, request, change.path, from);
    }
    case 'values':
      return askWhenChanged(work, request, change);
    case 'taken-back':
      return reopen(work, request);
    case 'returned':
    case 'answered':
      return standStill(work, request, change.kind === 'returned');
    case 'silent':
    case 'handed':
      return giveSeats(work, request, change.gives);
    case 'seat':
      return handOverSeats(work, request, change);
    case 'same-person':
      return samePerson(work, request, change);
    default:
      return undefined;
  }
};

const addRound = adding(approvalRounds);
const addStep = adding(approvalSteps);
const addSeat = adding(seats);

function begin(
  { tx, now, ...work }: Work,
  request: ShownRow,
  { steps }: ApprovalPath,
  fromStage: string | null = null,
): ShownRow {
  const around = aroundOf(tx, request, now);
  const roundId = newId();
  addRound(tx, { id: roundId, requestId: request.id, state: 'open', openedAt: now, fromStage });
  const holders = steps.map((step, place) => {
    const { id: key, label, needed, against = null, limit = null, instead } = step;
    const stepId = newId();
    const row = { id: stepId, limit };
    addStep(tx, {
      ...{ ...row, roundId, place, key, label, needed, against },
      instead: instead && instead.length > 0 ? instead.map(seatWord) : null,
    });
    if (place === 0) beginLimit(tx, request, row, now);
    const seated = seatsFor(step, around);
    for (const seat of seated)
      addSeat(tx, { ...seat, id: newId(), stepId, requestId: request.id, state: place === 0 ? 'open' : 'ahead' });
    return seated.map(({ holder }) => holder);
  });
  return decidersAre({ ...work, tx, now }, request, holders[0] ?? []);
}

/** Asks the next step when one is approved; nobody any more when the round has ended. */
function goOn(work: Work, request: ShownRow): ShownRow | undefined {
  const { tx, now } = work;
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open') return undefined;
  const { state, step: at } = standingOf(round);
  const current = state === 'open' ? at : -1;
  // A step that is over asks nobody who has not said anything yet.
  const over = round.steps.filter((_, place) => place !== current && (place <= at || state !== 'open'));
  shut(
    tx,
    over.flatMap((step) => step.seats),
  );
  for (const step of over) endLimit(tx, step);
  if (state !== 'open') {
    tx.update(approvalRounds).set({ state, endedAt: now }).where(eq(approvalRounds.id, round.id)).run();
    return undefined;
  }
  const step = round.steps[at];
  if (!step?.seats.some((seat) => seat.state === 'ahead')) return undefined;
  const seated = seatedNow(step, aroundOf(tx, request, now));
  const asked = seatsKept(seated, step.needed, ({ holder }) => holder !== NOBODY);
  for (const { id } of seated.filter((each) => !asked.includes(each))) tx.delete(seats).where(eq(seats.id, id)).run();
  for (const { id, holder, insteadOf } of asked)
    tx.update(seats).set({ state: 'open', holder, insteadOf }).where(eq(seats.id, id)).run();
  beginLimit(tx, request, step, now);
  return decidersAre(work, request, [
    ...round.steps.slice(0, at).flatMap((each) => each.seats.map(({ holder }) => holder)),
    ...asked.map(({ holder }) => holder),
  ]);
}

function withdraw({ tx, now, actor }: Work, request: ShownRow, why: string): undefined {
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open') return;
  for (const step of round.steps) endLimit(tx, step);
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

/** The time of the step that is asked stands still while whoever asked has to answer, and goes on then. */
function standStill({ tx, now }: Work, request: ShownRow, stands: boolean): undefined {
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open') return;
  (stands ? pauseLimit : resumeLimit)(tx, request, stepOf(round), now);
}

/** The seat at which somebody decided asks them again. */
function reopen({ tx, actor }: Work, request: ShownRow): undefined {
  const round = roundOf(tx, request.id);
  const seat = round && stepOf(round).seats.find(({ decidedBy }) => decidedBy !== null && decidedBy === actor);
  if (seat)
    tx.update(seats)
      .set({ state: 'open', decidedBy: null, decidedAt: null, way: null, seen: null, read: null, comment: null })
      .where(eq(seats.id, seat.id))
      .run();
}

/** Seats that go to somebody else: their step has its time anew. */
function giveSeats(work: Work, request: ShownRow, gives: readonly SeatGiven[]): ShownRow | undefined {
  const { tx, now } = work;
  const round = roundOf(tx, request.id);
  if (round?.state !== 'open' || gives.length === 0) return undefined;
  for (const { seat, from, to } of gives)
    tx.update(seats)
      .set({ holder: to, insteadOf: from === NOBODY ? null : from })
      .where(eq(seats.id, seat))
      .run();
  const step = round.steps.find(({ seats: asked }) => asked.some(({ id }) => gives.some(({ seat }) => seat === id)));
  if (step) beginLimit(tx, request, step, now);
  return decidersAre(work, request, heldIn(roundOf(tx, request.id)));
}

/** Who is asked in a round, or was: words of seats whose turn has come. */
const heldIn = (round: Round | undefined): readonly string[] =>
  round?.steps.flatMap((step) => step.seats.flatMap(({ holder, state }) => (state === 'ahead' ? [] : [holder]))) ?? [];

/** All seats of somebody, decided or not, are those of their other record. */
function samePerson(
  work: Work,
  request: ShownRow,
  { from, to }: { readonly from: string; readonly to: string },
): ShownRow | undefined {
  const [was, is] = [wordOf({ person: from }), wordOf({ person: to })];
  const { tx } = work;
  for (const name of ['holder', 'planned', 'insteadOf'] as const)
    tx.update(seats)
      .set({ [name]: is })
      .where(and(eq(seats.requestId, request.id), eq(seats[name], was)))
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

/** Gives the seats that somebody has not decided at yet to somebody else, in every step of the open round. */
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

/** What comes back with a request, with the links to it: a time that was over meanwhile does not ring any more. */
export const LAID_ROUNDS: readonly LaidPart[] = [
  { table: approvalRounds, of: byRequest(approvalRounds.requestId) },
  {
    table: approvalSteps,
    of: (ids) => sql`round_id in (select id from ${approvalRounds} where ${byRequest(approvalRounds.requestId)(ids)})`,
    back: missed((row, now) => isBefore(row, 'ring_at', now), { ring_at: null }),
  },
  { table: seats, of: byRequest(seats.requestId) },
  {
    table: links,
    of: (ids) =>
      sql`${byRequest(links.targetId)(ids)} or target_id in (select id from ${seats} where ${byRequest(seats.requestId)(ids)})`,
  },
];

/** The rounds of a request as they are, to be put back. */
export const roundsNow = (db: Reader, requestId: string): Laid => laidOf(db, requestId, LAID_ROUNDS);

/** Puts rounds of a request back as they were, in place of what became of them; those who are asked are asked as before. */
export function putRoundsBack(work: Work, request: ShownRow, rounds: Laid, deciders: readonly string[]): ShownRow {
  dropRounds(work.tx, [request.id]);
  putBackRows(work.tx, rounds, work.now, LAID_ROUNDS);
  return decidersAre(work, request, deciders);
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
