import type { BodyOf } from '@tolvek/contract';
import { passwordProblem } from '@tolvek/core/people';
import { type Problem as FieldProblem, isMailAddress } from '@tolvek/core/register';
import { DESK, DESK_KEY, NEW_DESK } from '@tolvek/core/settings';
import { refused, said } from '@tolvek/words';
import { and, eq, isNull } from 'drizzle-orm';
import { calendarNames, calendarOf } from '../calendar/queries.ts';
import { designByKey } from '../design/queries.ts';
import { hashOfPassword, setPassword } from '../people/accounts.ts';
import { addPerson, refuseWrong } from '../people/commands.ts';
import { givePackage } from '../people/grants.ts';
import { beginDay } from '../people/rules.ts';
import { people } from '../people/tables.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { type Link, openLink, spendLink } from '../platform/links.ts';
import { Problem, wrongFields } from '../platform/problem.ts';
import { links } from '../platform/tables.ts';
import { speakFor } from '../platform/words.ts';
import { by, write } from '../platform/work.ts';
import { layDesk, refuseUnsound } from '../settings/commands.ts';
import { linkFor } from '../settings/links.ts';

/** Whether the desk is laid. */
export const isLaid = (db: Reader): boolean => designByKey(db, DESK, DESK_KEY) !== undefined;

/**
 * Makes the link by which a desk is laid the first time, in place of any before; it works once, for
 * an hour. `email`: whom it is for; may be empty. Returns its token.
 */
export function firstStartLink(tx: Transaction, secret: string, email: string, now: number): string {
  tx.update(links)
    .set({ usedAt: now })
    .where(and(eq(links.purpose, 'first-start'), isNull(links.usedAt)))
    .run();
  return linkFor(tx, secret, { purpose: 'first-start', personId: email, targetId: DESK_KEY, now }).token;
}

/** The link of a first start; refused when it is none, was used, has ended, or the desk is laid already. */
function openFirst(house: House, db: Reader, token: string): Link {
  const link = openLink(db, token, 'first-start', house.clock.now());
  if (isLaid(db)) throw new Problem(410, 'link-used', refused('firstStartUsed'));
  return link;
}

export function firstStartView(house: House, token: string) {
  const { name, organisation, sender } = house.config.desk;
  const { expiresAt, personId } = openFirst(house, house.db, token);
  return { ends: new Date(expiresAt).toISOString(), desk: { name, organisation, sender }, email: personId };
}

/** @throws Problem 422 when a password is too short, too long, or easy to guess. */
export function refusePassword(password: string, known: readonly string[], field = 'password'): void {
  const problem = passwordProblem(password, known);
  if (problem) throw wrongFields([{ field, message: problem, fix: said('start:otherPassword') }]);
}

/** What a check refuses, each under the place of the part that it looks at. */
function refusedBy(place: string, check: () => void): readonly FieldProblem[] {
  try {
    check();
    return [];
  } catch (error) {
    if (!(error instanceof Problem) || !error.problems) throw error;
    return error.problems.map((each) => ({ ...each, field: `${place}.${each.field}` }));
  }
}

/**
 * Lays the desk and makes its first administrator, in one write.
 *
 * @throws Problem 404 for a link that is none, 410 for one that was used or has ended, 422 when
 *   something is missing or wrong.
 */
export async function layGround(
  house: House,
  token: string,
  { desk, administrator }: BodyOf<'layGround'>,
): Promise<void> {
  openFirst(house, house.db, token);
  const { name, email, password } = administrator;
  const { organisation, zone, language } = desk;
  const laid = {
    ...NEW_DESK,
    organisation,
    name: desk.name,
    zone,
    language,
    sender: { name: '', address: desk.sender },
  };
  // All that is wrong is told at once, and nothing is written before.
  const problems = [
    ...refusedBy('desk', () => refuseUnsound(laid)),
    ...refusedBy('administrator', () => refuseWrong(house.db, { name, email }, () => false)),
    ...refusedBy('administrator', () => refusePassword(password, [name, email, desk.name, organisation])),
  ];
  if (problems.length > 0) throw wrongFields(problems);
  const hash = await hashOfPassword(password);
  write(house, (work) => {
    const { tx, now } = work;
    spendLink(tx, openFirst(house, tx, token), now);
    const person = addPerson(work, { kind: 'staff', name, email, language });
    givePackage(by(work, person.id), { rights: ['rights'] }, person.id, 'administrator');
    layDesk(tx, laid, '', { viewer: { personId: person.id }, now });
    setPassword(tx, person.id, hash);
    beginDay(work);
  });
  speakFor(desk.sender);
}

/** Writes down the desk of an installation that an earlier release set up by its environment. */
export function layFromBefore(house: House): void {
  const { db, config } = house;
  if (isLaid(db) || db.select({ id: people.id }).from(people).limit(1).get() === undefined) return;
  const [first] = calendarNames(db);
  const { name, organisation, sender, senderName } = config.desk;
  const ofHost = `desk@${new URL(config.url).hostname}`;
  const address = [sender, ofHost].find(isMailAddress) ?? `${ofHost}.example`;
  const laid = {
    ...NEW_DESK,
    ...{ name: name || 'Service desk', organisation, zone: first ? calendarOf(db, first.key).zone : 'UTC' },
    calendar: first?.key ?? '',
    sender: { name: senderName === name ? '' : senderName.slice(0, 80), address },
  };
  write(house, (work) => {
    layDesk(work.tx, laid, '', { viewer: { personId: '' }, now: work.now });
    beginDay(work);
  });
}
