import { MAILING } from '@tolvek/core/mailing';
import { inPlace } from '@tolvek/core/people';
import { and, eq } from 'drizzle-orm';
import { changeEach, type Done } from '../design/commands.ts';
import { adding } from '../platform/adding.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { mailingById, type OwedRow, openFor } from './queries.ts';
import { owedForms } from './tables.ts';

/** Puts other words in the place of some in the audiences of all mailings, as when two records become one person. */
export const renameInMailings = (
  tx: Transaction,
  words: Readonly<Record<string, string>>,
  note: string,
  done: Done,
): void =>
  changeEach(
    tx,
    MAILING,
    (mailing) =>
      'audience' in mailing.to ? { ...mailing, to: { audience: inPlace(mailing.to.audience, words) } } : mailing,
    note,
    done,
  );

/** Sends by the address that a door has now what was sent by the one it had. */
export const sendByAddress = (tx: Transaction, from: string, to: string, done: Done): void =>
  changeEach(tx, MAILING, (mailing) => (mailing.door === from ? { ...mailing, door: to } : mailing), '', done);

export const addOwed = adding(owedForms);

/** Whether somebody has, or had, the same form by the same going. */
export const isSentAlso = (db: Reader, { goingId, topic }: Pick<OwedRow, 'goingId' | 'topic'>, to: string): boolean =>
  db
    .select({ id: owedForms.id })
    .from(owedForms)
    .where(and(eq(owedForms.goingId, goingId), eq(owedForms.personId, to), eq(owedForms.topic, topic)))
    .get() !== undefined;

/** Passes an open form on to somebody, who has to fill it in from now on. */
export function passOwed(tx: Transaction, owed: OwedRow, to: string, by: string, now: number): void {
  tx.update(owedForms).set({ state: 'passed', closedAt: now, remindAt: null }).where(eq(owedForms.id, owed.id)).run();
  addOwed(tx, { ...owed, id: newId(), personId: to, passedBy: by, sentAt: now });
}

/**
 * What becomes of the forms that somebody who leaves was still to fill in: whoever takes over fills in those that can be
 * passed on, that they do not have themselves and that are not about them. The others end with who leaves.
 */
export const owedOf = (
  db: Reader,
  leaver: string,
  to: string | null,
): { readonly given: readonly OwedRow[]; readonly ended: readonly OwedRow[] } => {
  const open = openFor(db, leaver);
  const isGiven = (owed: OwedRow): boolean =>
    to !== null &&
    (mailingById(db, owed.mailingId)?.design.passesOn ?? false) &&
    owed.aboutPersonId !== to &&
    !isSentAlso(db, owed, to);
  const given = open.filter(isGiven);
  return { given, ended: open.filter((owed) => !given.includes(owed)) };
};

/** Hands them over so; gives the goings of those that are somebody else’s now. */
export function handOverOwed(
  tx: Transaction,
  {
    leaver,
    to,
    by,
    now,
  }: { readonly leaver: string; readonly to: string | null; readonly by: string; readonly now: number },
): readonly string[] {
  const { given, ended } = owedOf(tx, leaver, to);
  for (const owed of given) if (to !== null) passOwed(tx, owed, to, by, now);
  for (const { id } of ended)
    tx.update(owedForms).set({ state: 'ended', closedAt: now, remindAt: null }).where(eq(owedForms.id, id)).run();
  return [...new Set(given.map(({ goingId }) => goingId))];
}
