import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { tellStandIns } from '../notice/follow.ts';
import { absencesOf, awayIn, comeBack, goAway } from '../people/absences.ts';
import { staffFound } from '../people/lists.ts';
import { groupNames, holderNames, personNamed, viewerIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { by, write } from '../platform/work.ts';

/** The absences of somebody that are not over, and whose place they take today. */
export function absencesView(
  db: Reader,
  personId: string,
  now: number,
): Pick<AnswerOf<'person'>, 'absences' | 'standsIn'> {
  const day = todayAt(db, now);
  const { standsIn = [] } = viewerIn(db, { id: personId, kind: 'staff' });
  return {
    absences: absencesOf(db, personId, day).map(({ id, fromDay, untilDay, substituteId }) => ({
      ...{ id, from: fromDay, until: untilDay, now: fromDay <= day },
      substitute: substituteId === null ? null : { id: substituteId, name: personNamed(db, substituteId) },
    })),
    standsIn: [...holderNames(db, standsIn, groupNames(db))],
  };
}

/** Says that somebody is away; whoever takes their place hears at once what is asked of them already. */
export const addAbsence = (
  house: House,
  viewer: Viewer,
  person: string,
  body: BodyOf<'addAbsence'>,
  key: string,
): AnswerOf<'addAbsence'> =>
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    return once(
      work.tx,
      { key, scope: `absence ${viewer.personId}`, content: { person, ...body }, now: work.now },
      () => {
        const { id, standing } = goAway(work, { person, ...body });
        tellStandIns(work, standing);
        return { id };
      },
    );
  });

export function endAbsence(house: House, viewer: Viewer, person: string, id: string): AnswerOf<'endAbsence'> {
  write(house, (work) => comeBack(by(work, viewer.personId), person, id));
  return { done: true };
}

/** Names that are offered at once. */
const OFFERED = 20;

/** Active staff by part of a name or an address; who is away is marked. */
export function colleaguesView(db: Reader, find: string | undefined, now: number): AnswerOf<'colleagues'> {
  const away = awayIn(db, todayAt(db, now));
  return {
    people: staffFound(db, find, OFFERED).map(({ id, name, email, portrait }) => ({
      ...{ id, name, email, portrait, away: away.has(id) },
    })),
  };
}
