import { dateAt } from '@tolvek/core/deadline';
import { own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { type Field, numberPrefix, numberWith } from '@tolvek/core/register';
import { and, lte } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { addJob, type Doing } from '../platform/longJobs.ts';
import { inGroups } from '../platform/turns.ts';
import type { Work } from '../platform/work.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { changeRequest } from '../request/change.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { numbered, setNumbersAside } from '../request/numbers.ts';
import { requestById } from '../request/queries.ts';
import { requests } from '../request/tables.ts';

/** What requests are numbered by, as long work. */
interface About {
  readonly register: string;
  /** Keys of the fields that are new. */
  readonly fields: readonly string[];
  /** What arrived later has its number already, epoch ms. */
  readonly upTo: number;
}

const dayAt = (db: Reader, register: RegisterRow): ((at: number) => string) => {
  const { zone } = calendarOf(db, register.usual.deadline.calendar);
  return (at) => dateAt(at, zone);
};

/**
 * Has the requests that are there numbered, the oldest first, when a register gets fields for it: their numbers are
 * set aside at once, and given as long work.
 */
export function numberLater(work: Work, registerId: string, fresh: readonly Field[], by: Viewer): void {
  const { tx, now, effects } = work;
  const fields = numbered(fresh).map(({ key }) => key);
  if (fields.length === 0) return;
  const of = setNumbersAside(tx, registerId, fresh, dayAt(tx, registerById(tx, registerId)));
  if (of === 0) return;
  const about: About = { register: registerId, fields, upTo: now };
  addJob(tx, { kind: 'number', about, by: by.personId, of, now });
  effects.jobs = true;
}

/**
 * Gives the numbers that were set aside, a few at a time: each request its place in the order they arrived, so that
 * after a restart it is the same.
 */
export async function numberAll(house: House, doing: Doing<About>): Promise<void> {
  const { db } = house;
  const register = registerById(db, doing.about.register);
  const fields = numbered(register.fields).filter(({ key }) => doing.about.fields.includes(key));
  const dayOf = dayAt(db, register);
  const some = and(countedIn(register.id, 'all'), lte(requests.createdAt, doing.about.upTo));
  let places: ReadonlyMap<string, number> = new Map();
  let total = (doing.before as { changed?: number } | null)?.changed ?? 0;
  for await (const group of inGroups(eachRequest(db, some))) {
    let reached = new Map(places);
    let changed = 0;
    await doing.step(group.length, (work) => {
      // Begun anew where the write has to be tried once more.
      reached = new Map(places);
      changed = 0;
      for (const { id } of group) {
        const request = requestById(work.tx, id);
        if (!request) continue;
        const changes = fields.flatMap(({ key, type }) => {
          const prefix = numberPrefix(type.prefix, dayOf(request.createdAt));
          const place = (reached.get(`${key} ${prefix}`) ?? 0) + 1;
          const number = numberWith(prefix, type.digits, place);
          const has = own(request.values, key);
          // Numbered as it arrived, in the very moment of the release.
          if (has !== undefined && has !== number) return [];
          reached.set(`${key} ${prefix}`, place);
          return has === number ? [] : [{ field: key, before: null, after: number }];
        });
        if (changes.length === 0) continue;
        changeRequest(work, request, { kind: 'values', why: 'numbered', changes });
        changed += 1;
      }
      return { changed: total + changed };
    });
    places = reached;
    total += changed;
  }
}
