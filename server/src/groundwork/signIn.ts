import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { may, type Viewer } from '@tolvek/core/people';
import { providerKey } from '@tolvek/core/settings';
import { refused, said } from '@tolvek/words';
import { and, count, eq, inArray, sql } from 'drizzle-orm';
import { endSessionsOf } from '../people/accounts.ts';
import { refuseOver } from '../people/grants.ts';
import { groundHistoryOf, noteGround } from '../people/history.ts';
import { personById } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import { endCode, isCodeOn } from '../platform/signIn/codes.ts';
import { passkeyHost } from '../platform/signIn/passkeyHost.ts';
import { endPasskeys, passkeysOf } from '../platform/signIn/passkeys.ts';
import {
  allProviders,
  arePasswordsOff,
  callbackOf,
  providerById,
  secretOf,
  setPasswords,
  tryProvider,
} from '../platform/signIn/providers.ts';
import { seal } from '../platform/signIn/sealed.ts';
import { account, signInProviders } from '../platform/tables.ts';
import { by, write } from '../platform/work.ts';
import { nameOf } from '../request/names.ts';

export const signInWays = ({ db, config }: House): AnswerOf<'signInWays'> => ({
  passkeys: passkeyHost(config),
  passwords: !arePasswordsOff(db),
  providers: allProviders(db)
    .filter(({ active }) => active)
    .map(({ id, name }) => ({ id, name })),
});

/** The active staff who have signed in by a provider that is in use. */
const linkedBy = (db: Reader, providers: readonly string[]) =>
  db
    .selectDistinct({ id: people.id })
    .from(account)
    .innerJoin(people, eq(people.id, account.userId))
    .where(and(eq(people.active, true), inArray(account.providerId, [...providers])));

const activeIds = (db: Reader): readonly string[] =>
  allProviders(db)
    .filter(({ active }) => active)
    .map(({ id }) => id);

/** Whether somebody could sign in without a password. */
const mayDoWithout = (db: Reader, personId: string): boolean =>
  linkedBy(db, activeIds(db))
    .all()
    .some(({ id }) => id === personId);

export function signInSettings({ db, config }: House, viewer: Viewer): AnswerOf<'signInSettings'> {
  const counts = new Map(
    db
      .select({ provider: account.providerId, n: sql<number>`count(distinct ${account.userId})` })
      .from(account)
      .innerJoin(people, eq(people.id, account.userId))
      .where(eq(people.active, true))
      .groupBy(account.providerId)
      .all()
      .map(({ provider, n }) => [provider, n]),
  );
  const staff = db
    .select({ n: count() })
    .from(people)
    .where(and(eq(people.kind, 'staff'), eq(people.active, true)))
    .get();
  return {
    ...{ passwords: !arePasswordsOff(db), mayDoWithout: mayDoWithout(db, viewer.personId) },
    mayChange: may(viewer, 'rights'),
    history: groundHistoryOf(db, 'desk', 'sign-in', nameOf(db)),
    ...{ staff: staff?.n ?? 0, linked: linkedBy(db, activeIds(db)).all().length },
    providers: allProviders(db).map((provider) => {
      const { id, name, issuer, clientId, active, version, madeAt, secret } = provider;
      return {
        ...{ id, name, issuer, clientId, active, version, made: iso(madeAt), callback: callbackOf(config, id) },
        secret: secret === null ? 'none' : secretOf(config, provider) === null ? 'lost' : 'kept',
        people: counts.get(id) ?? 0,
      };
    }),
  };
}

/**
 * Adds a provider, once it answers as one.
 *
 * @throws Problem 422 when it can’t be reached, or is not what it says
 */
export async function addProvider(
  house: House,
  viewer: Viewer,
  { secret, ...provider }: BodyOf<'addProvider'>,
  key: string,
): Promise<AnswerOf<'addProvider'>> {
  const unusable = await tryProvider(provider.issuer);
  if (unusable !== null)
    throw wrongFields([
      { field: 'issuer', message: said(`signIn:unusable.${unusable}`), fix: said('signIn:unusableFix') },
    ]);
  return write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx, now } = work;
    return once(tx, { key, scope: `provider ${viewer.personId}`, content: provider, now }, () => {
      const id = providerKey(
        provider.name,
        allProviders(tx).map(({ id: each }) => each),
      );
      const sealed = secret === null ? null : seal(house.config.secret, secret);
      tx.insert(signInProviders)
        .values({ ...provider, id, secret: sealed, madeAt: now })
        .run();
      noteGround(work, 'desk', 'sign-in', { kind: 'provider', name: provider.name, did: 'added' });
      return { id };
    });
  });
}

/** @throws Problem 409 when nobody could sign in any more */
function refuseNoWay(tx: Transaction): void {
  if (arePasswordsOff(tx) && activeIds(tx).length === 0) throw new Problem(409, 'no-way', refused('noWayToSignIn'));
}

/** @throws Problem 404, 409 when nobody could sign in any more, 412 when somebody was faster */
export const changeProvider = (
  house: House,
  viewer: Viewer,
  id: string,
  version: number,
  { secret, ...changes }: BodyOf<'changeProvider'>,
): AnswerOf<'changeProvider'> =>
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx } = work;
    const provider = providerById(tx, id);
    if (!provider) throw notFound('provider');
    if (provider.version !== version) throw staleVersion();
    const sealed = secret === undefined ? {} : { secret: secret === null ? null : seal(house.config.secret, secret) };
    tx.update(signInProviders)
      .set({ ...changes, ...sealed, version: version + 1 })
      .where(eq(signInProviders.id, id))
      .run();
    refuseNoWay(tx);
    const did = changes.active === undefined ? 'changed' : changes.active ? 'on' : 'off';
    noteGround(work, 'desk', 'sign-in', { kind: 'provider', name: changes.name ?? provider.name, did });
    return { version: version + 1 };
  });

/** @throws Problem 409 for who could not sign in themselves without a password */
export function putPasswords(house: House, viewer: Viewer, on: boolean): AnswerOf<'setPasswords'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    if (!on && !mayDoWithout(work.tx, viewer.personId)) throw new Problem(409, 'no-way', refused('signInByItFirst'));
    if (on === !arePasswordsOff(work.tx)) return;
    setPasswords(work.tx, on);
    noteGround(work, 'desk', 'sign-in', { kind: 'passwords', on });
  });
  return { done: true };
}

/** @throws Problem 403 for who may do less than they, 404 for who has no code */
export function endTheirCode(house: House, viewer: Viewer, id: string): AnswerOf<'endTheirCode'> {
  write(house, (whole) => {
    const work = by(whole, viewer.personId);
    const { tx } = work;
    const person = personById(tx, id);
    if (!person) throw notFound('person');
    refuseOver(tx, person, viewer);
    const [hadCode, keys] = [isCodeOn(tx, id), endPasskeys(tx, id)];
    if (!hadCode && keys === 0) throw notFound('code');
    endCode(tx, id);
    endSessionsOf(tx, id);
    if (hadCode) noteGround(work, 'person', id, { kind: 'code', on: false });
    if (keys > 0) noteGround(work, 'person', id, { kind: 'passkey', name: '', on: false });
  });
  house.live.endOf(id);
  return { done: true };
}

/** How somebody proves who they are: a password, a code after it, providers by name. */
export function proofsOf(
  db: Reader,
  personId: string,
): {
  readonly hasPassword: boolean;
  readonly code: boolean;
  readonly providers: string[];
  readonly passkeys: AnswerOf<'account'>['passkeys'];
} {
  const ways = db
    .select({ provider: account.providerId, password: account.password })
    .from(account)
    .where(eq(account.userId, personId))
    .all();
  const names = new Map(allProviders(db).map(({ id, name }) => [id, name]));
  return {
    hasPassword: ways.some(({ password }) => password !== null),
    code: isCodeOn(db, personId),
    providers: ways.flatMap(({ provider }) => names.get(provider) ?? []),
    passkeys: passkeysOf(db, personId).map(({ id, name, madeAt }) => ({
      ...{ id, name: name ?? '', made: iso(madeAt?.getTime() ?? 0) },
    })),
  };
}
