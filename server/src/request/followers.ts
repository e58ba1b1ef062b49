import { type AccessPlan, moversNamed } from '@tolvek/core/access';
import { and, asc, eq, type SQL, sql } from 'drizzle-orm';
import type { Reader, Transaction } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { followers } from './tables.ts';

const ofOne = prepared((db) =>
  db
    .select({ personId: followers.personId })
    .from(followers)
    .where(eq(followers.requestId, sql.placeholder('request')))
    .orderBy(asc(followers.at), asc(followers.personId))
    .prepare(),
);

/** The ids of those who follow a request, who began first before the others. */
export const followersOf = (db: Reader, requestId: string): readonly string[] =>
  ofOne(db)
    .all({ request: requestId })
    .map(({ personId }) => personId);

const telling = new WeakMap<Pick<AccessPlan, 'rules'>, boolean>();

/** Whether a plan tells those who follow a request from others. */
export function tellsFollowers(plan: Pick<AccessPlan, 'rules'>): boolean {
  const known = telling.get(plan);
  if (known !== undefined) return known;
  const tells = moversNamed(plan).includes('follower');
  telling.set(plan, tells);
  return tells;
}

/** Those who follow a request as far as a plan asks for it: nothing is looked up where it does not. */
export const followersFor = (db: Reader, plan: Pick<AccessPlan, 'rules'>, requestId: string): readonly string[] =>
  tellsFollowers(plan) ? followersOf(db, requestId) : [];

/** The ids of requests that somebody follows: as a part of a query. */
export const followedBy = (personId: string): SQL =>
  sql`(select ${followers.requestId} from ${followers} where ${followers.personId} = ${personId})`;

/** Whether somebody follows any request of a register. */
export const followsIn = (db: Reader, registerId: string, personId: string): boolean =>
  db.all(
    sql`select 1 from followers join requests on requests.id = request_id where person_id = ${personId} and register_id = ${registerId} limit 1`,
  ).length > 0;

/** Has somebody follow a request; false where they do already. `now`: epoch ms. */
export const putFollower = (tx: Transaction, requestId: string, personId: string, now: number): boolean =>
  tx.insert(followers).values({ requestId, personId, at: now }).onConflictDoNothing().run().changes > 0;

/** Ends that somebody follows a request; false where they do not. */
export const endFollower = (tx: Transaction, requestId: string, personId: string): boolean =>
  tx
    .delete(followers)
    .where(and(eq(followers.requestId, requestId), eq(followers.personId, personId)))
    .run().changes > 0;

/** What one record of a person follows, the other does. */
export function followAsOther(tx: Transaction, from: string, to: string): void {
  tx.run(sql`update or replace ${followers} set person_id = ${to} where person_id = ${from}`);
}
