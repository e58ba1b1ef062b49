import type { AnswerOf } from '@tolvek/contract';
import { refused } from '@tolvek/words';
import { and, eq, inArray, isNull, ne } from 'drizzle-orm';
import { notifyPerson } from '../notice/notify.ts';
import { hashOfPassword, hasPassword, setPassword } from '../people/accounts.ts';
import { markInvited } from '../people/commands.ts';
import { noteGround } from '../people/history.ts';
import { type PersonRow, personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { hashOf, type Link, openLink, spendLink } from '../platform/links.ts';
import { Problem } from '../platform/problem.ts';
import { arePasswordsOff } from '../platform/signIn/providers.ts';
import { links } from '../platform/tables.ts';
import { by, write } from '../platform/work.ts';
import { deskOf } from '../settings/queries.ts';
import { refusePassword } from './firstStart.ts';

/** Sends people of the staff an email each with a link to choose a password. Returns how many. */
export const invite = (house: House, actor: string, ids: readonly string[]): number =>
  write(house, (work) => {
    const asked = markInvited(
      by(work, actor),
      ids.filter((id) => !hasPassword(work.tx, id)),
    );
    for (const person of asked) notifyPerson(work, person, { kind: 'invitation', by: actor });
    return asked.length;
  });

/** A link that leads somebody in, and whom; refused when it is none, was used or has ended. */
function opened(db: Reader, token: string, now: number): { readonly link: Link; readonly person: PersonRow } {
  const purpose = db
    .select({ purpose: links.purpose })
    .from(links)
    .where(eq(links.tokenHash, hashOf(token)))
    .get()?.purpose;
  const link = openLink(db, token, purpose === 'reset' ? 'reset' : 'invite', now);
  const person = personById(db, link.personId);
  if (!person?.active) throw new Problem(410, 'link-expired', refused('inviteExpired'));
  return { link, person };
}

export function invitationView({ db, clock }: House, token: string): AnswerOf<'invitation'> {
  const { link, person } = opened(db, token, clock.now());
  const purpose = link.purpose === 'reset' ? 'reset' : 'invite';
  const passwords = !arePasswordsOff(db);
  return { passwords, purpose, name: person.name, email: person.email, desk: deskOf(db).name };
}

/**
 * Sets the password of whom a link leads in. All other links of theirs to a password end with it,
 * and so do their sessions.
 *
 * @throws Problem 404 for a link that is none, 410 for one that was used or has ended, 422 for a
 *   password that is too short or easy to guess.
 */
export async function acceptInvitation(house: House, token: string, password: string): Promise<{ email: string }> {
  const { person } = opened(house.db, token, house.clock.now());
  if (arePasswordsOff(house.db)) throw new Problem(403, 'passwords-off', refused('passwordsOff'));
  refusePassword(password, [person.name, person.email, deskOf(house.db).name]);
  const hash = await hashOfPassword(password);
  return write(house, (work) => {
    const { tx, now } = work;
    const { link } = opened(tx, token, now);
    spendLink(tx, link, now);
    tx.update(links)
      .set({ usedAt: now })
      .where(
        and(
          eq(links.personId, person.id),
          inArray(links.purpose, ['invite', 'reset']),
          isNull(links.usedAt),
          ne(links.id, link.id),
        ),
      )
      .run();
    const again = hasPassword(tx, person.id);
    setPassword(tx, person.id, hash);
    noteGround(by(work, person.id), 'person', person.id, { kind: 'password', again });
    return { email: person.email };
  });
}
