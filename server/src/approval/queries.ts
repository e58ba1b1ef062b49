import { type DecidesBy, mayNotDecide, type Standing, seatToTake, whatNow } from '@tolvek/core/approval';
import { type Holder, holderOf, holdersOf, type Viewer, wordOf } from '@tolvek/core/people';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { peopleHolding } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { approvalRounds, approvalSteps, seats } from './tables.ts';

export type SeatRow = typeof seats.$inferSelect;
export type RoundRow = typeof approvalRounds.$inferSelect;

/** A step with its seats, in the order of the path. */
export type StepRow = typeof approvalSteps.$inferSelect & { readonly seats: readonly SeatRow[] };

/** A round with its steps in turn. */
export type Round = RoundRow & { readonly steps: readonly StepRow[] };

const lastRound = prepared((db) =>
  db
    .select()
    .from(approvalRounds)
    .where(eq(approvalRounds.requestId, sql.placeholder('request')))
    .orderBy(desc(approvalRounds.openedAt), desc(approvalRounds.id))
    .limit(1)
    .prepare(),
);
const stepsIn = prepared((db) =>
  db
    .select()
    .from(approvalSteps)
    .where(eq(approvalSteps.roundId, sql.placeholder('round')))
    .orderBy(asc(approvalSteps.place))
    .prepare(),
);
const seatsAt = prepared((db) =>
  db
    .select()
    .from(seats)
    .where(eq(seats.stepId, sql.placeholder('step')))
    .orderBy(asc(seats.id))
    .prepare(),
);

/** The last time a request was or is decided on. */
export function roundOf(db: Reader, requestId: string): Round | undefined {
  const round = lastRound(db).get({ request: requestId });
  return round && withSteps(db, round);
}

function withSteps(db: Reader, round: RoundRow): Round {
  const steps = stepsIn(db).all({ round: round.id });
  return { ...round, steps: steps.map((step) => ({ ...step, seats: seatsAt(db).all({ step: step.id }) })) };
}

const seatWithId = prepared((db) =>
  db
    .select({ seat: seats, round: approvalRounds })
    .from(seats)
    .innerJoin(approvalSteps, eq(approvalSteps.id, seats.stepId))
    .innerJoin(approvalRounds, eq(approvalRounds.id, approvalSteps.roundId))
    .where(eq(seats.id, sql.placeholder('id')))
    .prepare(),
);

/** A seat with the round it belongs to. */
export function seatById(db: Reader, id: string): { readonly seat: SeatRow; readonly round: Round } | undefined {
  const found = seatWithId(db).get({ id });
  return found && { seat: found.seat, round: withSteps(db, found.round) };
}

const VERDICTS = { approved: 'approve', refused: 'refuse', ahead: null, open: null, closed: null } as const;

/** Where the steps of a round stand, by what their seats said. */
export const standingOf = ({ steps }: Round): Standing =>
  whatNow(
    steps.map(({ needed, against, silently, seats: asked }) => ({
      ...{ needed, against, silently },
      verdicts: asked.map(({ state }) => VERDICTS[state]),
    })),
  );

/** The step a round is at, or ended at. */
export function stepOf(round: Round): StepRow {
  const step = round.steps[standingOf(round).step];
  if (!step) throw new Error(`Round ${round.id} has no step.`);
  return step;
}

/** The step a seat belongs to. */
export function stepOfSeat(round: Round, seat: SeatRow): StepRow {
  const step = round.steps.find(({ id }) => id === seat.stepId);
  if (!step) throw new Error(`Seat ${seat.id} has no step.`);
  return step;
}

/** Who has said something at a step: at another seat of it they may not. */
export const heardAt = ({ seats: some }: Pick<StepRow, 'seats'>): readonly string[] =>
  some.flatMap(({ decidedBy }) => decidedBy ?? []);

/** A seat as the rule of who may decide looks at it. */
export const asked = (step: StepRow, { state, holder }: SeatRow) => ({
  ...{ state, holder },
  decidedBeside: heardAt(step),
});

/** The seat somebody has in a round: one they may decide at, else one by which it can be said why not. */
export function seatFor(db: Reader, round: Round, viewer: Viewer, by: DecidesBy = 'seat'): SeatRow {
  const at = stepOf(round);
  const seat =
    bestOf(
      db,
      at.seats.filter(({ state }) => state === 'open'),
      at.seats.filter((each) => mayNotDecide(asked(at, each), viewer, [], by) === null),
      viewer,
    ) ??
    at.seats.find(({ state }) => state === 'open') ??
    at.seats[0];
  if (!seat) throw new Error(`Step ${at.id} has no seat.`);
  return seat;
}

/** Of some open seats the one that leaves most of the others to somebody, where one may decide at several. */
function bestOf(
  db: Reader,
  open: readonly SeatRow[],
  mine: readonly SeatRow[],
  { personId }: Viewer,
): SeatRow | undefined {
  if (mine.length < 2) return mine[0];
  const able = (holder: Holder): readonly string[] => peopleHolding(db, wordOf(holder)).map(({ id }) => id);
  const at = seatToTake(
    mine.map((seat) => open.indexOf(seat)),
    open.map(({ holder }) => holderOf(holder)),
    { able },
    personId,
  );
  return open[at];
}

/** By what somebody decides in a round: by a seat of theirs, or else by the right to, where they have it. */
export const decidesBy = (db: Reader, round: Round, viewer: Viewer, hasRight: boolean): DecidesBy =>
  hasRight && mayNotDecide(asked(stepOf(round), seatFor(db, round, viewer)), viewer, []) !== null ? 'right' : 'seat';

const seated = prepared((db) =>
  db
    .select({ holder: seats.holder })
    .from(seats)
    .where(sql`holder >= '@' and holder < 'A' and holder = ${sql.placeholder('word')}`)
    .limit(1)
    .prepare(),
);

/**
 * The words by which somebody holds seats: their groups, and they themselves where a seat is theirs alone, now or
 * before. Most hold none, and lists need not look for them.
 */
export function wordsHeld(db: Reader, viewer: Viewer): readonly string[] {
  const own = wordOf({ person: viewer.personId });
  return seated(db).get({ word: own }) ? holdersOf(viewer) : viewer.groups;
}

/** What silence at a step comes to, stored before it is said: what follows reads the round as it is then. */
export function settleSilently(tx: Transaction, { id }: StepRow, silently: 'approved' | 'refused'): void {
  tx.update(approvalSteps).set({ silently, ringAt: null }).where(eq(approvalSteps.id, id)).run();
}

/** Seats that can be decided at now. */
export const openSeats = (round: Round): readonly SeatRow[] =>
  round.steps.flatMap((step) => step.seats.filter((seat) => seat.state === 'open'));
