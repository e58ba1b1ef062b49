import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { wallClockAt } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import { AHEAD, dutiesBetween, gapsBetween, heldDuties, nextOnDuty, peopleOn, type Roster } from '@tolvek/core/roster';
import { refused, said } from '@tolvek/words';
import { and, eq, gt, isNull, ne, or } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { changeAtOnce } from '../design/commands.ts';
import { notifyPerson } from '../notice/notify.ts';
import { namesOf, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { notFound, Problem, wrongFields } from '../platform/problem.ts';
import { type Work, write } from '../platform/work.ts';
import { allRosters, presenceFrom, rosterByKey } from '../roster/queries.ts';
import { dutyOffers } from '../roster/tables.ts';

type OfferRow = typeof dutyOffers.$inferSelect;

const DAY = 86_400_000;
/** So many days ahead the plan is shown, and gaps are told. */
const SHOWN = 28;
/** So many days before now a duty can have begun that goes on: it is told from then on where it is longer. */
const BEGUN = 7;
/** So many swaps that are over a roster keeps, so that what it was is still seen; older ones make room. */
const KEPT = 200;

const stillOpen = (now: number) => and(eq(dutyOffers.state, 'open'), gt(dutyOffers.untilAt, now));

/** What others offer somebody: to them by name, or to whoever of a roster that they are on takes it. */
const offeredTo = (db: Reader, person: string, mine: ReadonlySet<string>, now: number): readonly OfferRow[] =>
  db
    .select()
    .from(dutyOffers)
    .where(
      and(
        stillOpen(now),
        ne(dutyOffers.personId, person),
        or(eq(dutyOffers.askedId, person), isNull(dutyOffers.askedId)),
      ),
    )
    .orderBy(dutyOffers.fromAt)
    .all()
    .filter(({ askedId, roster }) => askedId === person || mine.has(roster));

const offeredBy = (db: Reader, person: string, now: number): readonly OfferRow[] =>
  db
    .select()
    .from(dutyOffers)
    .where(and(stillOpen(now), eq(dutyOffers.personId, person)))
    .orderBy(dutyOffers.fromAt)
    .all();

/** Who is on duty by each roster, one’s own duties, and what is offered. */
export function dutyView(db: Reader, { personId, rights }: Viewer, now: number): AnswerOf<'duty'> {
  const rosters = allRosters(db).filter(({ retired }) => !retired);
  const presence = presenceFrom(db, now);
  const today = todayAt(db, now);
  const names = namesOf(db, rosters.flatMap(peopleOn));
  const named = (id: string): string => names.get(id) ?? personById(db, id)?.name ?? '';
  const mine = new Set(rosters.filter((roster) => peopleOn(roster).includes(personId)).map(({ key }) => key));
  const looked = rosters.map((roster) => {
    const calendar = calendarOf(db, roster.calendar);
    // From before, so that a duty that goes on is told with when it began.
    const ahead = dutiesBetween(roster, calendar, now - BEGUN * DAY, now + AHEAD * DAY).filter(({ to }) => to > now);
    const next = nextOnDuty(roster, calendar, now);
    const gaps = gapsBetween(roster, calendar, presence, now, now + SHOWN * DAY);
    // When somebody is away is for those who are on the roster with them, or look after it.
    const knowsWho = mine.has(roster.key) || rights.includes('groundwork');
    const shown = heldDuties(ahead, gaps).filter(({ from }) => from < now + SHOWN * DAY);
    const told = shown.map(({ person, from, to }) => ({
      ...{ name: named(person), mine: person === personId, from: iso(from), to: iso(to) },
    }));
    return {
      roster,
      ahead,
      told: {
        ...{ key: roster.key, name: roster.name, zone: roster.zone, mine: mine.has(roster.key) },
        on: told.filter((_, place) => {
          const duty = shown[place];
          return duty && duty.from <= now && duty.to > now && !presence.isAway(duty.person, today);
        }),
        next: next && { at: iso(next.at), names: next.people.map(named) },
        ahead: told,
        gaps: gaps.map(({ from, to, away }) => ({
          ...{ from: iso(from), to: iso(to), away: knowsWho ? away.map(named) : [] },
        })),
        others: mine.has(roster.key)
          ? peopleOn(roster).flatMap((id) =>
              id === personId || personById(db, id)?.active !== true
                ? []
                : [{ id, name: named(id), away: presence.isAway(id, today) }],
            )
          : [],
      },
    };
  });
  const offerTold = (row: OfferRow): AnswerOf<'duty'>['offered'][number] => ({
    ...{ id: row.id, roster: row.roster, from: iso(row.fromAt), to: iso(row.untilAt), note: row.note },
    ...{ by: named(row.personId), person: row.askedId === null ? null : named(row.askedId) },
  });
  return {
    now: iso(now),
    rosters: looked.map(({ told }) => told),
    mine: looked
      .flatMap(({ roster, ahead }) =>
        ahead.filter(({ person }) => person === personId).map((duty) => ({ roster, duty })),
      )
      .sort((a, b) => a.duty.from - b.duty.from)
      .map(({ roster, duty }) => ({ roster: roster.key, from: iso(duty.from), to: iso(duty.to) })),
    offered: offeredTo(db, personId, mine, now).map(offerTold),
    offering: offeredBy(db, personId, now).map(offerTold),
  };
}

/** Whether somebody is on duty all the time between two moments (epoch ms). */
const isOn = (db: Reader, roster: Roster, person: string, from: number, to: number): boolean =>
  dutiesBetween(roster, calendarOf(db, roster.calendar), from, to).some(
    (duty) => duty.person === person && duty.from === from && duty.to === to,
  );

/**
 * Offers a duty of one’s own to somebody of the roster, or to whoever of it takes it; they hear of it.
 *
 * @throws Problem 404 for a roster one is not on, 422 for a time that is over or one is not on duty in, for somebody who is
 *   not on the roster, and where it is offered already.
 */
export const offerDuty = (
  house: House,
  { personId }: Viewer,
  body: BodyOf<'offerDuty'>,
  sentKey: string,
): AnswerOf<'offerDuty'> =>
  write(house, (work) => {
    const { tx, now } = work;
    return once(tx, { key: sentKey, scope: `duty ${personId}`, content: body, now }, () => {
      const roster = rosterByKey(tx, body.roster)?.draft;
      const on = roster ? peopleOn(roster) : [];
      if (!roster || !on.includes(personId)) throw notFound('roster');
      const [from, to] = [Date.parse(body.from), Date.parse(body.to)];
      const others = on.filter((id) => id !== personId && personById(tx, id)?.active);
      const isOver = to <= now || to <= from;
      if (isOver || !isOn(tx, roster, personId, from, to))
        throw wrongFields([{ field: 'from', message: said('rosters:notOn'), fix: said('rosters:chooseOwn') }]);
      if (body.person === null ? others.length === 0 : !others.includes(body.person))
        throw wrongFields([
          { field: 'person', message: said('rosters:notOfRoster'), fix: said('rosters:chooseOther') },
        ]);
      if (
        offeredBy(tx, personId, now).some((row) => row.roster === body.roster && row.fromAt < to && row.untilAt > from)
      )
        throw wrongFields([{ field: 'from', message: said('rosters:offered'), fix: said('rosters:withdrawFirst') }]);
      const id = newId();
      const offer = { id, roster: roster.key, fromAt: from, untilAt: to, personId, askedId: body.person };
      tx.insert(dutyOffers)
        .values({ ...offer, note: body.note, state: 'open', createdAt: now })
        .run();
      for (const other of body.person === null ? others : [body.person])
        tell(work, other, { did: 'offered', roster: roster.key, by: personId, from, to, note: body.note });
      return { id };
    });
  });

type DutyCause = Extract<Parameters<typeof notifyPerson>[2], { kind: 'duty' }>;

function tell(work: Work, person: string, cause: Omit<DutyCause, 'kind'>): void {
  const found = personById(work.tx, person);
  if (found?.active) notifyPerson(work, found, { kind: 'duty', ...cause });
}

const offerGone = (): Problem => new Problem(409, 'offer-gone', refused('offerGone'));

/**
 * Takes a duty that is offered, says no to it, or takes one’s own offer back. What is taken is a swap of the roster, in
 * force at once; whoever offered it hears of it.
 *
 * @throws Problem 404 for an offer that is nobody’s to answer, 409 where somebody was faster or it is their duty no more.
 */
export const answerOffer = (
  house: House,
  viewer: Viewer,
  id: string,
  { answer }: BodyOf<'answerOffer'>,
): AnswerOf<'answerOffer'> => {
  const { personId } = viewer;
  write(house, (work) => {
    const { tx, now } = work;
    const offer = tx.select().from(dutyOffers).where(eq(dutyOffers.id, id)).get();
    const design = offer && rosterByKey(tx, offer.roster);
    const isTheirs = offer?.personId === personId;
    const mayTake =
      design &&
      offer &&
      !isTheirs &&
      (offer.askedId === personId || (offer.askedId === null && peopleOn(design.draft).includes(personId)));
    if (!offer || !design || (answer === 'withdraw' ? !isTheirs : !mayTake)) throw notFound('offer');
    if (offer.state !== 'open' || offer.untilAt <= now) throw offerGone();
    const end = (state: 'taken' | 'declined' | 'withdrawn'): void =>
      void tx
        .update(dutyOffers)
        .set({ state, takenBy: state === 'taken' ? personId : null })
        .where(eq(dutyOffers.id, id))
        .run();
    const { roster, fromAt: from, untilAt: to, personId: of } = offer;
    const told = { roster, by: personId, from, to, note: '' };
    if (answer === 'withdraw') return end('withdrawn');
    if (answer === 'decline') {
      // What is offered to everybody stays open for the others.
      if (offer.askedId === null) throw offerGone();
      end('declined');
      return tell(work, of, { did: 'declined', ...told });
    }
    const { draft, version } = design;
    if (!isOn(tx, draft, of, from, to)) throw offerGone();
    const clock = (at: number): string => wallClockAt(at, draft.zone);
    // What of it is over was theirs.
    const swap = {
      id,
      from: clock(Math.max(from, now)),
      until: clock(to),
      instead: of,
      by: personId,
      note: offer.note,
    };
    const over = draft.swaps.filter(({ until }) => until <= clock(now));
    const dropped = new Set(over.slice(0, Math.max(0, over.length - KEPT)).map((each) => each.id));
    const content = { ...draft, swaps: [...draft.swaps.filter((each) => !dropped.has(each.id)), swap] };
    changeAtOnce(tx, design, { version, content, note: '' }, { viewer, now });
    end('taken');
    return tell(work, of, { did: 'taken', ...told });
  });
  return { done: true };
};
