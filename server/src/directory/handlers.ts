import type { AnswerOf, BodyOf, directoryRoutes } from '@tolvek/contract';
import { may, type Viewer } from '@tolvek/core/people';
import { and, eq, isNotNull, ne, sql } from 'drizzle-orm';
import { openWorkOf } from '../groundwork/people.ts';
import { bearersTold } from '../people/bearers.ts';
import { changePerson } from '../people/commands.ts';
import { groundHistoryOf } from '../people/history.ts';
import { DIRECTORY } from '../people/kept.ts';
import { personById } from '../people/queries.ts';
import { groups, people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import type { Handlers } from '../platform/serve.ts';
import { aTurn } from '../platform/turns.ts';
import { by, type Work, write } from '../platform/work.ts';
import { nameOf } from '../request/names.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { prepareFilling } from './profiles.ts';
import { scimBase } from './routes.ts';
import { directoryGroups, directoryUsers } from './tables.ts';
import { allTokens, endToken, makeToken } from './tokens.ts';
import { countUsers, KEEPER } from './users.ts';

export function directoryHandlers(house: House): Handlers<typeof directoryRoutes> {
  return {
    directory: ({ viewer }) => directoryView(house, viewer),
    addDirectoryToken: ({ viewer, body }) => addToken(house, viewer, body),
    endDirectoryToken: ({ viewer, params }) => {
      write(house, (work) => endToken(by(work, viewer.personId), params.id));
      return { done: true };
    },
    fillFromDirectory: () => fillIn(house),
  };
}

const addToken = (house: House, viewer: Viewer, body: BodyOf<'addDirectoryToken'>): AnswerOf<'addDirectoryToken'> =>
  write(house, (work) => makeToken(by(work, viewer.personId), body));

function directoryView(house: House, viewer: Viewer): AnswerOf<'directory'> {
  const { db } = house;
  const now = house.clock.now();
  return {
    address: scimBase(house),
    tokens: bearersTold(db, allTokens(db), now),
    users: countUsers(db),
    groups: keptGroups(db),
    fields: filledFields(db),
    left: leftWithWork(db),
    mayGiveTokens: may(viewer, 'rights'),
    history: groundHistoryOf(db, 'desk', 'directory', nameOf(db)),
  };
}

const keptGroups = (db: Reader): AnswerOf<'directory'>['groups'] =>
  db
    .select({ key: groups.key, name: groups.name, members: groups.members })
    .from(directoryGroups)
    .innerJoin(groups, eq(groups.key, directoryGroups.groupKey))
    .orderBy(groups.name)
    .all();

function filledFields(db: Reader): AnswerOf<'directory'>['fields'] {
  const unread = db
    .select({ id: people.id, name: people.name, unread: directoryUsers.unread })
    .from(directoryUsers)
    .innerJoin(people, eq(people.id, directoryUsers.personId))
    .where(ne(directoryUsers.unread, sql`'{}'`))
    .orderBy(people.name, people.id)
    .all();
  return profileDesignOf(db).fields.flatMap(({ key, label, directory, retired }) =>
    directory === undefined || retired
      ? []
      : [
          {
            ...{ key, label, from: directory },
            unread: unread.flatMap((each) => {
              const text = each.unread[key];
              return text === undefined ? [] : [{ id: each.id, name: each.name, said: text }];
            }),
          },
        ],
  );
}

/** Staff who can’t come in any more and still have open work, whoever took them out. */
function leftWithWork(db: Reader): AnswerOf<'directory'>['left'] {
  const gone = db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(and(eq(people.kind, 'staff'), eq(people.active, false), isNotNull(people.leftAt)))
    .orderBy(people.name, people.id)
    .all();
  const workOf = openWorkOf(
    db,
    gone.map(({ id }) => id),
  );
  return gone.flatMap((person) => {
    const { handles, decides } = workOf(person.id);
    return handles + decides > 0 ? [{ ...person, openWork: handles + decides }] : [];
  });
}

/** People who are filled in anew in one write. */
const AT_ONCE = 100;

/** Fills in the fields of profiles anew, of a hundred people at a time. */
async function fillIn(house: House): Promise<AnswerOf<'fillFromDirectory'>> {
  const all = house.db
    .select({ id: directoryUsers.personId })
    .from(directoryUsers)
    .orderBy(directoryUsers.personId)
    .all()
    .map(({ id }) => id);
  let changed = 0;
  for (let from = 0; from < all.length; from += AT_ONCE) {
    changed += await patiently(house, () =>
      write(house, (work) => fillSome(by(work, DIRECTORY), all.slice(from, from + AT_ONCE))),
    );
    await aTurn('long work');
  }
  return { changed };
}

/** Fills in some people; returns how many are others than before. */
function fillSome(work: Work, ids: readonly string[]): number {
  const { tx } = work;
  const fill = prepareFilling(work);
  let changed = 0;
  for (const id of ids) {
    const person = personById(tx, id);
    const row = tx.select().from(directoryUsers).where(eq(directoryUsers.personId, id)).get();
    if (!person || !row) continue;
    const { profile, unread } = fill(row.resource);
    const version = changePerson(work, KEEPER, { id, version: person.version, changes: { profile } });
    tx.update(directoryUsers).set({ unread }).where(eq(directoryUsers.personId, id)).run();
    if (version !== person.version) changed += 1;
  }
  return changed;
}
