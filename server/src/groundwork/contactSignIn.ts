import { setTimeout as pause } from 'node:timers/promises';
import { refused } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { and, count, eq, gt, inArray, isNull, lt, sql } from 'drizzle-orm';
import type { Request, Response } from 'express';
import { notifyPerson } from '../notice/notify.ts';
import { notices } from '../notice/tables.ts';
import { openAccount } from '../people/accounts.ts';
import { type PersonRow, personByEmail, personById } from '../people/queries.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { addressOf } from '../platform/limits.ts';
import { openLink, spendLink } from '../platform/links.ts';
import { Problem } from '../platform/problem.ts';
import { SignInGuard } from '../platform/signIn/guard.ts';
import { codeOf, isCode } from '../platform/signIn/letterCodes.ts';
import { giveAgain } from '../platform/signIn/routes.ts';
import { beginSession, callerOf, endSession } from '../platform/signIn/session.ts';
import { codeTries, links } from '../platform/tables.ts';
import { write } from '../platform/work.ts';
import { linkFor } from '../settings/links.ts';

const HOUR = 3_600_000;
/** Letters with a code that somebody gets at most: anybody can ask for them. */
const LETTERS = { hour: 5, day: 20 } as const;
/** Wrong codes after which those that were sent open nothing any more. */
const TRIES = 5;

/** Counts wrong codes: one for each running house. */
export const codeGuard = (): SignInGuard => new SignInGuard(() => performance.now());

/** Contacts prove who they are by what only the holder of their address reads. Staff have ways of their own. */
const contactBy = (tx: Transaction, email: string): PersonRow | undefined => {
  const person = personByEmail(tx, email.trim().toLowerCase());
  return person?.kind === 'contact' && person.active ? person : undefined;
};

/**
 * Sends a code and a link to sign in by, where the address is that of a contact. The answer is the same for all
 * addresses, and is given before anything is looked up: it takes as long for one as for another.
 */
export function askForCode(house: House, { email, language }: { email: string; language: Language }): void {
  setImmediate(() => {
    try {
      write(house, (work) => {
        const { tx, now } = work;
        const person = contactBy(tx, email);
        if (!person || lettersTo(tx, person.id, now - HOUR) >= LETTERS.hour) return;
        if (lettersTo(tx, person.id, now - 24 * HOUR) >= LETTERS.day) return;
        const link = linkFor(tx, house.config.secret, {
          ...{ purpose: 'sign-in', personId: person.id, targetId: person.id, now },
        });
        notifyPerson(work, person, { kind: 'sign-in', link: link.id, language });
      });
    } catch (error) {
      // Whoever asked was answered; they ask again.
      house.log.warn({ err: error }, 'a code was not sent');
    }
  });
}

const lettersTo = (tx: Transaction, personId: string, since: number): number =>
  tx
    .select({ n: count() })
    .from(notices)
    .where(and(eq(notices.personId, personId), eq(notices.kind, 'sign-in'), gt(notices.createdAt, since)))
    .get()?.n ?? 0;

/** The links of somebody whose codes open still. */
const openCodes = (tx: Transaction, personId: string, now: number): readonly { readonly id: string }[] =>
  tx
    .select({ id: links.id })
    .from(links)
    .leftJoin(codeTries, eq(codeTries.linkId, links.id))
    .where(
      and(
        ...[eq(links.personId, personId), eq(links.purpose, 'sign-in'), isNull(links.usedAt)],
        ...[gt(links.expiresAt, now), lt(sql`coalesce(${codeTries.wrong}, 0)`, TRIES)],
      ),
    )
    .all();

/** What sign-in by a letter needs of a call. */
interface Through {
  readonly request: Request;
  readonly response: Response;
}

/**
 * Signs somebody in by the code of a letter. A wrong one counts against all that they were sent.
 *
 * @throws Problem 401 for a wrong code and for an address that nobody has, in the same words; 429 after too many.
 */
export async function signInByCode(
  house: House,
  guard: SignInGuard,
  { email, code }: { readonly email: string; readonly code: string },
  through: Through,
): Promise<void> {
  const attempt = { account: `code ${email.trim().toLowerCase()}`, address: addressOf(through.request), known: false };
  const asked = guard.ask(attempt);
  if (asked.kind === 'refused')
    throw new Problem(429, 'too-many-tries', refused('manyEmailCodes'), undefined, Math.ceil(asked.forMs / 1_000));
  await pause(asked.waitMs);
  const token = write(house, ({ tx, now }) => {
    const person = contactBy(tx, email);
    const open = person ? openCodes(tx, person.id, now) : [];
    const right = open.some(({ id }) => isCode(code, codeOf(house.config.secret, id)));
    if (person && right) return comeIn(house, tx, person, now, through.request);
    for (const { id } of open)
      tx.insert(codeTries)
        .values({ linkId: id, wrong: 1 })
        .onConflictDoUpdate({ target: codeTries.linkId, set: { wrong: sql`${codeTries.wrong} + 1` } })
        .run();
    return null;
  });
  if (token === null) throw new Problem(401, 'wrong-code', refused('wrongEmailCode'));
  guard.right(attempt);
  give(house, through, token);
}

/** Signs somebody in by the link of a letter. It works once. @throws Problem 404 or 410 for what is no such link any more */
export function signInByLink(house: House, token: string, through: Through): void {
  const given = write(house, ({ tx, now }) => {
    const link = openLink(tx, token, 'sign-in', now);
    const person = personById(tx, link.personId);
    if (person?.kind !== 'contact' || !person.active) throw new Problem(404, 'link-unknown', refused('linkUnknown'));
    return comeIn(house, tx, person, now, through.request);
  });
  give(house, through, given);
}

/** Begins a session of somebody who has proved who they are; what else was sent to them opens nothing any more. */
function comeIn(house: House, tx: Transaction, person: PersonRow, now: number, request: Request): string {
  const sent = tx
    .select()
    .from(links)
    .where(and(eq(links.personId, person.id), eq(links.purpose, 'sign-in'), isNull(links.usedAt)))
    .all();
  for (const link of sent) spendLink(tx, link, now);
  if (sent.length > 0)
    tx.delete(codeTries)
      .where(
        inArray(
          codeTries.linkId,
          sent.map(({ id }) => id),
        ),
      )
      .run();
  openAccount(tx, person);
  return beginSession(tx, house.config, person.id, request);
}

/** Gives the cookie of a new session; one that was there before ends, whoever’s it was. */
function give(house: House, { request, response }: Through, token: string): void {
  const before = callerOf(house, request);
  if (before) {
    write(house, ({ tx }) => endSession(tx, before.token));
    house.live.end(before.token);
  }
  giveAgain(response, house.config, token);
}
