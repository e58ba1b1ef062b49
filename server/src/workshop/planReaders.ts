import type { AnswerOf, QueryOf } from '@tolvek/contract';
import { type Concerned, gather, type LevelOver, levelsOver } from '@tolvek/core/access';
import { dateAt } from '@tolvek/core/deadline';
import { isSame } from '@tolvek/core/design';
import type { RegisterContent } from '@tolvek/core/form';
import { type Viewer, viewersIn } from '@tolvek/core/people';
import { fieldKeyOf, partsOf } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { statesOf } from '../design/queries.ts';
import { accessOn, writtenSince } from '../people/onDay.ts';
import { metBy, namesOf, personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { people } from '../people/tables.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { conditionsOf } from '../register/commands.ts';
import { type RegisterRow, registerNamed } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { protectionFor } from '../request/protection.ts';
import { requestByNumber } from '../request/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { fieldsFor } from './plan.ts';
import { askedAlike, concernedBy, hangingOn, sortRead } from './planEffect.ts';
import { planWritten } from './planWritten.ts';

type Asked = QueryOf<'fieldReaders'>;

/** People who are told by name; the others are counted. */
const NAMED = 200;
const DAY = 86_400_000;

/** By what plan, and by whose groups and rights, is looked at who reads what; null where that was not written down. */
interface Looking {
  readonly register: RegisterRow;
  readonly day: string;
  readonly concerned: (ids: readonly string[]) => readonly Concerned[];
  /** Who could come in. */
  readonly isHere: (id: string) => boolean;
  /** Requests that had come in by then, epoch ms; all where none is said. */
  readonly until: number | undefined;
}

/**
 * The plan that is meant, and the people as they were: by the draft, by what is in force, or by what was on a day.
 *
 * @throws Problem 422 for a day that is not over.
 */
function lookingAt(db: Reader, key: string, { plan, day }: Pick<Asked, 'plan' | 'day'>): Looking | { since: string } {
  const register = registerNamed(db, key);
  const today = todayAt(db, nowIn(db));
  if (day === undefined || day === today) {
    const access = plan === 'draft' ? planWritten(db, register) : register.access;
    const isHere = (id: string): boolean => personById(db, id)?.active ?? false;
    const concerned = (ids: readonly string[]) => concernedBy(db, ids);
    return { register: { ...register, access }, day: today, concerned, isHere, until: undefined };
  }
  if (day > today)
    throw wrongFields([{ field: 'day', message: said('ground:dayToCome'), fix: said('ground:dayBefore') }]);
  const { zone } = deskOf(db);
  const states = statesOf<RegisterContent>(db, register);
  const then = states.find(({ at }) => dateAt(at, zone) <= day);
  const first = Math.max(states.at(-1)?.at ?? 0, writtenSince(db) ?? 0);
  if (!then || day < dateAt(first, zone)) return { since: dateAt(first, zone) };
  const { access } = accessOn(db, day);
  const viewerOn = viewersIn(access, day);
  const conditions = conditionsOf(then.content.access);
  const nobody = (personId: string): Viewer => ({ personId, kind: 'contact', rights: [], groups: [] });
  return {
    register: { ...register, access: then.content.access, deskGroups: then.content.deskGroups },
    day,
    concerned: (ids) =>
      ids.map((personId) => {
        const then = viewerOn(personId) ?? nobody(personId);
        // What stood in profiles on a day is not kept: as it stands now.
        const viewer = { ...then, meets: metBy(db, personById(db, personId), conditions) };
        return { ...viewer, viewer: () => viewer };
      }),
    isHere: (id) => access.staff.get(id) ?? false,
    // Whatever the zone: the day is over by then, and what came in a little later is told apart by its date.
    until: Date.parse(`${day}T00:00:00Z`) + DAY,
  };
}

/** Levels of fields for people over the requests that are meant. */
function overRequests(
  db: Reader,
  { register, day, until }: Looking,
  concerned: readonly Concerned[],
  fields: readonly string[],
) {
  const hanging = hangingOn(register);
  const asked = askedAlike(db, register, { ...hanging, until });
  const known = new Map<string, ReturnType<Parameters<typeof levelsOver>[2]>>();
  const protections = (sort: string) => {
    let found = known.get(sort);
    if (!found) {
      const { releaseId, at } = sortRead(sort, hanging.conditions, day);
      const protection = protectionFor(db, register, { releaseId, computedBy: null, trial: false });
      known.set(sort, (found = { protection, at }));
    }
    return found;
  };
  return levelsOver(
    concerned,
    gather({ register: register.id, deskGroups: register.deskGroups }, asked, register.access.readers !== undefined),
    protections,
    fields,
  );
}

/** The number of a request is told to whoever works on it; one is an example for many. */
function toldTo(db: Reader, viewer: Viewer) {
  const known = new Map<string, boolean>();
  const isTold = (number: string): boolean => {
    let found = known.get(number);
    if (found === undefined) {
      const request = requestByNumber(db, number);
      found = request !== undefined && openRequest(db, request, viewer, 'counting').relation.isDesk;
      known.set(number, found);
    }
    return found;
  };
  return ({ example, ...level }: LevelOver) => ({
    ...level,
    example: example !== null && isTold(example) ? example : null,
  });
}

/** Who can see a field, and who can change it: on how many requests, and by which rule. */
export function fieldReaders(db: Reader, viewer: Viewer, key: string, asked: Asked): AnswerOf<'fieldReaders'> {
  const looking = lookingAt(db, key, asked);
  const nobody = { people: [], more: 0, counts: { write: 0, read: 0, hidden: 0 } };
  if ('since' in looking) return { since: looking.since, ...nobody };
  if (!partsOf(fieldsFor(db, looking.register)).some((field) => field.key === asked.field)) throw notFound('field');
  const known = new Map(
    db
      .select({ id: people.id, name: people.name, email: people.email })
      .from(people)
      .orderBy(people.name, people.id)
      .all()
      .map((person) => [person.id, person]),
  );
  const here = [...known.keys()].filter(looking.isHere);
  const told = toldTo(db, viewer);
  const counts = { write: 0, read: 0, hidden: 0 };
  const found = overRequests(db, looking, looking.concerned(here), [asked.field]).flatMap(
    ({ personId, requests, fields }) => {
      const levels = fields[0]?.levels ?? [];
      const most = levels[0]?.level;
      if (requests === 0 || !most) return [];
      counts[most] += 1;
      const { name, email } = known.get(personId) ?? { name: '', email: '' };
      return [{ id: personId, name, email, most, levels }];
    },
  );
  const order = { write: 0, read: 1, hidden: 2 };
  const sorted = found.toSorted((a, b) => order[a.most] - order[b.most]);
  return {
    since: null,
    counts,
    people: sorted.slice(0, NAMED).map(({ most: _, levels, ...person }) => ({ ...person, levels: levels.map(told) })),
    more: Math.max(0, found.length - NAMED),
  };
}

/** What somebody can see and change: field by field, on how many requests, and by which rule. */
export function personReads(
  db: Reader,
  viewer: Viewer,
  key: string,
  { person, ...asked }: QueryOf<'personReads'>,
): AnswerOf<'personReads'> {
  const name = namesOf(db, [person]).get(person);
  if (name === undefined) throw notFound('person');
  const looking = lookingAt(db, key, asked);
  if ('since' in looking) return { since: looking.since, name, requests: 0, fields: [] };
  const fields = partsOf(fieldsFor(db, looking.register));
  const told = toldTo(db, viewer);
  const [over] = overRequests(
    db,
    looking,
    looking.concerned([person]),
    fields.map((field) => field.key),
  );
  const levelsOf = (field: string): readonly LevelOver[] =>
    over?.fields.find((each) => each.field === field)?.levels ?? [];
  return {
    since: null,
    name,
    requests: over?.requests ?? 0,
    fields: fields.flatMap(({ key: field, label }) => {
      const levels = levelsOf(field);
      const lines = fieldKeyOf(field);
      // A column is told of where it is otherwise than its lines.
      return lines !== field && isSame(levels, levelsOf(lines)) ? [] : [{ field, label, levels: levels.map(told) }];
    }),
  };
}
