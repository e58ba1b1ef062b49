import type { AnswerOf, BodyOf, QueryOf } from '@tolvek/contract';
import { holdersPlanned } from '@tolvek/core/approval';
import { FORM, REGISTER } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import {
  daysInWords,
  type Grant,
  grantsAt,
  may,
  RIGHTS,
  rightInWords,
  type Viewer,
  waysInto,
  wordOf,
} from '@tolvek/core/people';
import { sayValue } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { and, eq, ne, sql } from 'drizzle-orm';
import { seats } from '../approval/tables.ts';
import { designsOf } from '../design/queries.ts';
import { openFor } from '../mailing/queries.ts';
import { absencesWith, awayIn } from '../people/absences.ts';
import { addPerson, changePerson } from '../people/commands.ts';
import { type EntryRow, entryOf, nestedEntries } from '../people/entries.ts';
import { differingRegisters, givenTo, grantsIn, packagesGivenTo } from '../people/given.ts';
import { refuseRaising } from '../people/grants.ts';
import { enterGroup } from '../people/groups.ts';
import { groundHistoryOf } from '../people/history.ts';
import { type Listed, listPeople, type Place, withGroups } from '../people/lists.ts';
import { groupNames, groupsOf, type PersonRow, personById, recordNow } from '../people/queries.ts';
import { EVERYONE } from '../people/rights.ts';
import { todayAt } from '../people/settle.ts';
import { addresses, groupEntries } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { pictureVersions } from '../platform/pictures.ts';
import { inList } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import type { Session } from '../platform/signIn/session.ts';
import { by, write } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { nameOf } from '../request/names.ts';
import { requests, tallies } from '../request/tables.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { absencesView } from './absences.ts';
import { sessionsView } from './account.ts';
import { readTyped, typedProfile } from './profile.ts';
import { proofsOf } from './signIn.ts';

type Row = AnswerOf<'people'>['people'][number];

/** What people have to do: unfinished requests they are the handler of, and seats that wait for them alone. */
export function openWorkOf(
  db: Reader,
  ids: readonly string[],
): (id: string) => { readonly handles: number; readonly decides: number } {
  const handles = new Map(
    db
      .select({ id: tallies.handlerId, n: sql<number>`sum(${tallies.n})` })
      .from(tallies)
      .where(and(inList(tallies.handlerId, ids), ne(tallies.phase, 'finished')))
      .groupBy(tallies.handlerId)
      .all()
      .map(({ id, n }) => [id, n]),
  );
  const decides = new Map(
    db
      .select({ holder: seats.holder, n: sql<number>`count(*)` })
      .from(seats)
      .where(
        and(
          eq(seats.state, 'open'),
          inList(
            seats.holder,
            ids.map((person) => wordOf({ person })),
          ),
        ),
      )
      .groupBy(seats.holder)
      .all()
      .map(({ holder, n }) => [holder, n]),
  );
  return (id) => ({ handles: handles.get(id) ?? 0, decides: decides.get(wordOf({ person: id })) ?? 0 });
}

function rowsOf(db: Reader, listed: readonly Listed[], now: number): readonly Row[] {
  const ids = listed.map(({ id }) => id);
  const workOf = openWorkOf(db, ids);
  const packageOf = packagesGivenTo(db, ids);
  const shown = shownProfile(db);
  const away = awayIn(db, todayAt(db, now));
  const portraits = pictureVersions(db, ids);
  return listed.map((person) => {
    const { id, name, email, kind, active, signsIn, invitedAt, groups, namesake } = person;
    const { handles, decides } = workOf(id);
    return {
      ...{ id, name, email, kind, active, signsIn, groups: [...groups], namesake, away: away.has(id) },
      ...{ role: packageOf(id), portrait: portraits.get(id) ?? null },
      profile: shown(person),
      ...{ invited: invitedAt === null ? null : iso(invitedAt), openWork: handles + decides },
    };
  });
}

/** What lists show of profiles, in words by field. */
function shownProfile(db: Reader): (person: PersonRow) => Row['profile'] {
  const fields = profileDesignOf(db).fields.filter(({ listed, retired }) => listed && !retired);
  const named = nameOf(db);
  return ({ profile }) =>
    Object.fromEntries(
      fields.flatMap((field) => {
        const value = own(profile, field.key);
        return value === undefined ? [] : [[field.key, sayValue(field, value, named)]];
      }),
    );
}

/** Where a list goes on, as a text. */
const placeOf = (place: Place): string => JSON.stringify([place.by, place.id]);
function fromPlace(text: string | undefined): Place | null {
  try {
    const [by, id] = JSON.parse(text ?? 'null') as [unknown, unknown];
    return (typeof by === 'string' || typeof by === 'number') && typeof id === 'string' ? { by, id } : null;
  } catch {
    return null;
  }
}

export function peopleView(db: Reader, { after, ...looking }: QueryOf<'people'>, now: number): AnswerOf<'people'> {
  const { people: listed, total, next } = listPeople(db, looking, fromPlace(after));
  return { people: [...rowsOf(db, listed, now)], total, next: next && placeOf(next) };
}

/** Whether the first step of a way into a group is by its rule; else, where there is no other, the entry that can be ended. */
function firstStep(entries: readonly EntryRow[], [first, ...rest]: readonly string[]) {
  const into = entries.filter((entry) => entry.groupKey === first);
  const byHand = into.find(({ source }) => source !== 'rule');
  const isRuled = into.length > 0 && !byHand;
  return { ...(isRuled ? { byRule: true as const } : {}), entry: rest.length > 0 ? null : (byHand?.id ?? null) };
}

export function personView(db: Reader, own: Session, asked: string, now: number): AnswerOf<'person'> {
  // A record that became a part of another is that one.
  const person = recordNow(db, asked);
  const id = person?.id ?? asked;
  const [listed] = person ? withGroups(db, [person]) : [];
  const [row] = listed ? rowsOf(db, [listed], now) : [];
  if (!person || !row || person.removedAt !== null) throw notFound('person');
  const entries = db.select().from(groupEntries).where(eq(groupEntries.personId, id)).all();
  const all = [...entries.map(entryOf), ...nestedEntries(db)];
  const day = todayAt(db, now);
  const names = groupNames(db);
  const proofs = proofsOf(db, id);
  const given = grantsIn(db, null);
  return {
    ...row,
    ...{ version: person.version, language: person.language, source: person.source },
    typed: typedProfile(db, person),
    ...absencesView(db, id, now),
    ...{ code: proofs.code, providers: proofs.providers, passkeys: proofs.passkeys.length },
    sessions: sessionsView(db, own, id),
    addresses: db
      .select({ address: addresses.address })
      .from(addresses)
      .where(eq(addresses.personId, id))
      .orderBy(addresses.address)
      .all()
      .map(({ address }) => address),
    ways: row.groups.map(({ key, name }) => ({
      ...{ key, name },
      ways: waysInto(all, { person: id, group: key, day }).map((way) => ({
        through: way.groups.slice(0, -1).map((each) => names.get(each) ?? each),
        days: daysInWords({ from: way.since, until: way.until }),
        ...firstStep(entries, way.groups),
      })),
    })),
    hangs: hangsOn(db, id, day),
    mayGiveRole: may(own.viewer, 'rights') && person.kind === 'staff',
    rights: waysToRights(db, person, names, given),
    elsewhere: rightsElsewhere(db, person, names, given),
    history: groundHistoryOf(db, 'person', id, nameOf(db)),
  };
}

/** What somebody may do, and by which way: themselves, by a group of theirs, or as everyone of the staff. */
function waysToRights(
  db: Reader,
  { id, kind }: PersonRow,
  names: ReadonlyMap<string, string>,
  given: readonly Grant[],
): AnswerOf<'person'>['rights'] {
  if (kind !== 'staff') return [];
  const ways = [
    { way: { by: 'everyone' } as const, rights: givenTo(given, EVERYONE) },
    { way: { by: 'person' } as const, rights: givenTo(given, wordOf({ person: id })) },
    ...groupsOf(db, id).map((group) => ({
      way: { by: 'group', group: names.get(group) ?? group } as const,
      rights: givenTo(given, group),
    })),
  ];
  return RIGHTS.flatMap((right) => {
    const found = ways.filter(({ rights }) => rights.includes(right)).map(({ way }) => way);
    return found.length > 0 ? [{ right, words: rightInWords(right), ways: found }] : [];
  });
}

/** In which registers somebody may do more or less than at the desk. */
function rightsElsewhere(
  db: Reader,
  person: PersonRow,
  names: ReadonlyMap<string, string>,
  given: readonly Grant[],
): AnswerOf<'person'>['elsewhere'] {
  const differing = differingRegisters(db);
  if (differing.size === 0) return [];
  const desk = waysToRights(db, person, names, given);
  const has = (rights: typeof desk, { right }: (typeof desk)[number]): boolean =>
    rights.some((each) => each.right === right);
  return [...differing].flatMap(([register, there]) => {
    const here = waysToRights(db, person, names, grantsAt(given, there));
    const more = here.filter((each) => !has(desk, each));
    const less = desk.filter((each) => !has(here, each)).map(({ right, words }) => ({ right, words }));
    if (more.length + less.length === 0) return [];
    const { key, name } = registerById(db, register);
    return [{ key, name, more, less }];
  });
}

/** What hangs on somebody: their open work, and where designs name them. */
function hangsOn(db: Reader, id: string, day: string): AnswerOf<'person'>['hangs'] {
  const owes = openFor(db, id).length;
  const { handles, decides } = openWorkOf(db, [id])(id);
  const word = wordOf({ person: id });
  const standing = absencesWith(db, id, day);
  const allForms = designsOf(db, FORM);
  const forms = allForms.filter(({ draft }) => holdersPlanned(draft.approval).some((seat) => wordOf(seat) === word));
  const asked = db
    .select({ n: sql<number>`count(*)` })
    .from(requests)
    .where(and(eq(requests.requesterId, id), ne(requests.phase, 'finished')))
    .get();
  // Whatever else names them in a design, such as a condition: ids stand nowhere by chance.
  const names = (part: unknown): boolean => JSON.stringify(part).includes(id);
  const seatOf = new Set(forms.map(({ key }) => key));
  const named = [
    ...allForms
      .filter(({ key, draft }) => !seatOf.has(key) && names(draft))
      .map(({ key, draft }) => ({ title: draft.title, to: `/workshop/${key}` })),
    ...designsOf(db, REGISTER)
      .filter(({ draft: { fields, stages, access } }) => names([fields, stages, access]))
      .map(({ key, draft }) => ({ title: REGISTER.titleOf(draft), to: `/workshop/registers/${key}` })),
  ];
  return [
    ...(handles > 0 ? [{ words: said('ground:hangs.handles', { count: handles }), to: null }] : []),
    ...(decides > 0 ? [{ words: said('ground:hangs.decides', { count: decides }), to: null }] : []),
    ...(owes > 0 ? [{ words: said('ground:hangs.owes', { count: owes }), to: null }] : []),
    ...(standing > 0 ? [{ words: said('ground:hangs.standIn', { count: standing }), to: null }] : []),
    ...forms.map(({ key, draft }) => ({
      ...{ words: said('ground:hangs.seat', { form: draft.title }), to: `/workshop/${key}/approval` },
    })),
    ...named.map(({ title, to }) => ({ words: said('ground:hangs.named', { title }), to })),
    ...(asked && asked.n > 0 ? [{ words: said('ground:hangs.asked', { count: asked.n }), to: null }] : []),
  ];
}

/** Adds somebody, and lets them into groups. @throws Problem 403, 404, 422 */
export const addSomebody = (
  house: House,
  viewer: Viewer,
  { groups = [], role = 'member', language = null, profile = {}, ...person }: BodyOf<'addPerson'>,
  key: string,
): AnswerOf<'addPerson'> =>
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const content = { ...person, groups, role, language, profile };
    return once(work.tx, { key, scope: `person ${viewer.personId}`, content, now: work.now }, () => {
      const known = readTyped(work.tx, person.kind, profile, work.now);
      const { id } = addPerson(work, { ...person, language, profile: known });
      if (role !== 'member') changePerson(work, viewer, { id, version: 1, changes: { role } });
      for (const group of groups) refuseRaising(work.tx, viewer, group);
      for (const group of groups) enterGroup(work, { group, member: { person: id }, from: null, until: null });
      return { id };
    });
  });

export const changeSomebody = (
  house: House,
  viewer: Viewer,
  id: string,
  version: number,
  { profile, ...changes }: BodyOf<'changePerson'>,
): AnswerOf<'changePerson'> => {
  const next = write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const kind = personById(work.tx, id)?.kind ?? 'staff';
    const known = readTyped(work.tx, kind, profile, work.now);
    return changePerson(work, viewer, { id, version, changes: { ...changes, profile: known } });
  });
  if (changes.active === false) house.live.endOf(id);
  return { version: next };
};
