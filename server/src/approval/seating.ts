import {
  type Around,
  isHolder,
  NOBODY,
  type Seated,
  seatedBy,
  seatingOf,
  seatOf,
  seatWord,
  waitsForNobody,
} from '@tolvek/core/approval';
import { own } from '@tolvek/core/own';
import { awayOn, type Holder, holderOf, wordOf } from '@tolvek/core/people';
import { standInsOf } from '../people/absences.ts';
import { peopleHolding, personById, recordNow } from '../people/queries.ts';
import { absencesOn, todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { type ShownRow, whoseIs } from '../request/queries.ts';
import { onDuty } from '../roster/queries.ts';
import { heardAt, type Round, type StepRow, standingOf } from './queries.ts';

/** What is known of those whom a path can ask for one request; looked up as it is asked for, and once. */
export function aroundOf(db: Reader, request: ShownRow, now: number): Around {
  const day = todayAt(db, now);
  let away: ReturnType<typeof absencesOn> | undefined;
  const known = new Map<string, readonly string[]>();
  const askedFor = (holder: Holder, when: 'today' | 'sometime'): readonly string[] => {
    const word = wordOf(holder);
    const holding = peopleHolding(db, word).map(({ id }) => id);
    away ??= absencesOn(db, day);
    const absences = away;
    const present = holding.filter((id) => awayOn(absences, id, day) === null);
    if (when === 'today') return present.length > 0 ? present : standInsOf(db, word);
    return present.length === holding.length ? holding : [...new Set([...holding, ...standInsOf(db, word)])];
  };
  const someone = (id: unknown): Holder | null => {
    const person = typeof id === 'string' ? recordNow(db, id) : undefined;
    return person ? { person: person.id } : null;
  };
  /** Of several on duty the first who is here and not whose request it is. */
  const dutyFor = (roster: string): string | undefined => {
    const on = onDuty(db, { roster, orNext: true }, now);
    away ??= absencesOn(db, day);
    const absences = away;
    const whose = whoseIs(request);
    return on.find((id) => !whose.includes(id) && awayOn(absences, id, day) === null) ?? on[0];
  };
  return {
    named: (seat) => {
      if ('person' in seat) return someone(seat.person);
      if (isHolder(seat)) return seat;
      if ('field' in seat) return someone(own(request.values, seat.field));
      if ('duty' in seat) return someone(dutyFor(seat.duty));
      // Whose request it is: on whose behalf somebody asked, where they did.
      const whose = request.onBehalfId ?? request.requesterId;
      const person = whose === null ? undefined : personById(db, whose);
      return person ? someone(own(person.profile, seat.profile)) : null;
    },
    able: (holder, when) => {
      const key = `${when} ${wordOf(holder)}`;
      let found = known.get(key);
      if (!found) known.set(key, (found = askedFor(holder, when)));
      return found;
    },
    whose: whoseIs(request),
  };
}

/** A seat as it is stored. */
export interface SeatWords {
  readonly holder: string;
  readonly planned: string;
  readonly insteadOf: string | null;
}

function asStored({ planned: plan, holder, isInstead }: Seated, { named }: Around): SeatWords {
  // Somebody may be a part of another record by now.
  const planned = seatWord('person' in plan ? (named(plan) ?? plan) : plan);
  return { planned, holder: holder === null ? NOBODY : wordOf(holder), insteadOf: isInstead ? planned : null };
}

/** Who is asked at a step of a path, as it stands now. */
export const seatsFor = (step: Parameters<typeof seatingOf>[0], around: Around): readonly SeatWords[] =>
  seatingOf(step, around).map((seat) => asStored(seat, around));

/**
 * Who is asked at a step whose turn has come: whoever holds a seat keeps it while they can decide; else whoever was
 * planned, or decides instead.
 */
export function seatedNow(
  { seats, instead }: StepRow,
  around: Around,
): readonly (SeatWords & { readonly id: string })[] {
  const candidates = seats.map(({ holder, planned }) => [
    ...new Set([...(holder === NOBODY ? [] : [holder]), planned ?? holder, ...(instead ?? [])]),
  ]);
  const seated = seatedBy(
    candidates.map((words) => words.map(seatOf)),
    around,
  );
  return seats.map(({ id, holder, planned, insteadOf }, at) => {
    const found = seated[at];
    const word = found ? wordOf(found.holder) : NOBODY;
    const was = planned ?? holder;
    const isOther = word !== holder && word !== NOBODY;
    return { id, planned: was, holder: word, insteadOf: isOther && holder !== NOBODY ? holder : insteadOf };
  });
}

/** Whether a round waits at a step for which too few are left who could decide. */
export function isStuck(round: Round, around: Around): boolean {
  const standing = standingOf(round);
  const step = round.steps[standing.step];
  if (round.state !== 'open' || standing.state !== 'open' || !step) return false;
  return waitsForNobody(
    {
      needed: step.needed,
      approved: step.seats.filter(({ state }) => state === 'approved').length,
      open: step.seats
        .filter(({ state }) => state === 'open')
        .map(({ holder }) => (holder === NOBODY ? null : holderOf(holder))),
      decidedBy: heardAt(step),
    },
    around,
  );
}
