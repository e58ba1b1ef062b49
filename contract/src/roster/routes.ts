import { HANDS_OVER, MOST_IN_TURN, MOST_SHIFTS, MOST_SWAPS, NEEDED, type Roster } from '@tolvek/core/roster';
import { z } from 'zod';
import { release } from '../form/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { day, done, key, keyed, moment, versioned } from '../wire/shapes.ts';
import { calendar } from '../workshop/calendars.ts';
import { rosterHeads } from './heads.ts';

const id = z.string().min(1).max(64);
const wallClock = z.string().max(16);
const shift = z.strictObject({
  ...{ id, name: z.string().trim().max(200), days: z.array(z.int().min(1).max(7)).max(7).readonly() },
  ...{ from: z.string().max(5), to: z.string().max(5) },
  people: z.array(id).max(MOST_IN_TURN).readonly(),
  passes: z.strictObject({ every: z.number().max(100), of: z.enum(['weeks', 'times']) }),
  since: z.string().max(10),
  until: z.string().max(10).optional(),
  skipsClosed: z.boolean().optional(),
});
const swap = z.strictObject({
  ...{ id, from: wallClock, until: wallClock, instead: id.nullable(), by: id.nullable() },
  note: z.string().trim().max(500),
});
const fields = {
  ...{ name: z.string().trim().max(200), zone: z.string().max(64), calendar: z.string().max(64) },
  needed: z.enum(NEEDED),
  shifts: z.array(shift).max(MOST_SHIFTS).readonly(),
  swaps: z.array(swap).max(MOST_SWAPS).readonly(),
  handsOver: z.enum(HANDS_OVER).optional(),
  ...{ onlyOnDuty: z.boolean().optional(), tells: z.boolean().optional(), retired: z.boolean().optional() },
};
/** Who is on duty when; its key stands in the address. */
const plan = z.strictObject(fields);
const roster = exactly<Roster>()(z.strictObject({ key: z.string().max(64), ...fields }));

/** Somebody is on duty from one moment to another. */
const duty = z.object({
  name: z.string(),
  /** Whether it is the reader. */
  mine: z.boolean(),
  from: moment,
  to: moment,
});
/** A duty that somebody wants to be taken by another, or by whoever of the roster takes it (null). */
const offer = z.object({
  ...{ id: z.string(), roster: z.string(), from: moment, to: moment, note: z.string() },
  /** Who offers it, and to whom. */
  ...{ by: z.string(), person: z.string().nullable() },
});

/** Rosters: who is on duty when, and what people swap among themselves. */
export const rosterRoutes = routesOf(rosterHeads, {
  rosters: {
    says: 'All rosters by name, who is on duty by each and when nobody will be first, and what a roster can name.',
    answer: z.object({
      rosters: z.array(
        z.object({
          ...{ key: z.string(), name: z.string(), retired: z.boolean() },
          /** Names of those who are on duty now. */
          on: z.array(z.string()),
          /** When nobody is on duty within two weeks though somebody has to be. */
          gap: moment.nullable(),
        }),
      ),
      calendars: z.array(calendar),
      /** The zone of the desk: whether somebody is away is told by its days. */
      zone: z.string(),
      /** Everybody of the staff, and whether they are here still. */
      people: z.array(z.object({ id: z.string(), name: z.string(), active: z.boolean() })),
      /** When they are away from today on; null: until they are back. */
      away: z.array(z.object({ person: z.string(), from: day, until: day.nullable() })),
    }),
  },
  createRoster: {
    says: 'Makes a roster, in force at once.',
    body: z.strictObject({ roster: plan }),
    answer: z.object({ key: z.string() }),
  },
  roster: {
    says: 'A roster as it is in force, what asks who is on duty by it, and what was in force before.',
    params: keyed,
    answer: z.object({
      ...{ key: z.string(), version: z.int(), roster },
      /** Titles of the forms that ask it. */
      askedBy: z.array(z.string()),
      states: z.array(release.extend({ roster })),
    }),
  },
  changeRoster: {
    says: 'Puts another state of a roster in force at once.',
    params: keyed,
    body: z.strictObject({
      roster: plan,
      /** Why; others read it later. */
      note: z.string().max(500),
    }),
    answer: versioned,
  },
  duty: {
    says: 'Who is on duty by each roster now, next and in the weeks ahead, one’s own duties, and what is offered.',
    answer: z.object({
      now: moment,
      rosters: z.array(
        z.object({
          ...{ key: z.string(), name: z.string(), zone: z.string() },
          /** Whether the reader is on it. */
          mine: z.boolean(),
          on: z.array(duty),
          /** Who comes next, and when. */
          next: z.object({ at: moment, names: z.array(z.string()) }).nullable(),
          ahead: z.array(duty),
          /** When nobody is on duty though somebody has to be; the names of those who would be and are away. */
          gaps: z.array(z.object({ from: moment, to: moment, away: z.array(z.string()) })),
          /** Who else is on it, to offer a duty to. */
          others: z.array(z.object({ id: z.string(), name: z.string(), away: z.boolean() })),
        }),
      ),
      mine: z.array(z.object({ roster: z.string(), from: moment, to: moment })),
      /** What others offer the reader, and what the reader offers. */
      ...{ offered: z.array(offer), offering: z.array(offer) },
    }),
  },
  offerDuty: {
    says: 'Offers a duty of one’s own, or a part of it, to somebody of the roster, or to whoever takes it.',
    body: z.strictObject({
      ...{ roster: key, from: moment, to: moment, person: id.nullable() },
      note: z.string().trim().max(500),
    }),
    answer: z.object({ id: z.string() }),
  },
  answerOffer: {
    says: 'Takes a duty that is offered, says no to it, or takes one’s own offer back.',
    params: z.strictObject({ id: z.string().max(64) }),
    body: z.strictObject({ answer: z.enum(['take', 'decline', 'withdraw']) }),
    answer: done,
  },
});
