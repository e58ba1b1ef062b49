import { PACKAGES, type Viewer } from '@tolvek/core/people';
import { isMailAddress } from '@tolvek/core/register';
import { type Said, said } from '@tolvek/words';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { hasPassword } from '../people/accounts.ts';
import { addPerson, changePerson } from '../people/commands.ts';
import { givePackage } from '../people/grants.ts';
import { noteGround } from '../people/history.ts';
import { type PersonRow, personByEmail, personById } from '../people/queries.ts';
import { grants, people } from '../people/tables.ts';
import { CannotStart } from '../platform/cannotStart.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { endCode } from '../platform/signIn/codes.ts';
import { endPasskeys } from '../platform/signIn/passkeys.ts';
import { setPasswords } from '../platform/signIn/providers.ts';
import { session } from '../platform/tables.ts';
import { type Work, write } from '../platform/work.ts';
import { linkFor } from '../settings/links.ts';
import { firstStartLink, isLaid } from './firstStart.ts';

/** What stands at the command line as the one who does it: whoever may start the application. */
const BY_COMMAND: Viewer = { personId: '', kind: 'staff', rights: PACKAGES.administrator, groups: [] };

/** Thrown for a command that can’t be done, with what to do instead. */
class CommandRefused extends CannotStart {}

/** @throws CommandRefused for a text that is no address */
function addressIn(typed: string | undefined): string {
  const address = typed?.trim().toLowerCase() ?? '';
  if (!isMailAddress(address)) throw new CommandRefused(said('commands:adminNoAddress', { typed: typed ?? '' }));
  return address;
}

/** The administrator of an address: made, let in again or raised where it has to be. */
function administrator(work: Work, email: string): PersonRow {
  const found = personByEmail(work.tx, email);
  if (!found) {
    const [name = email] = email.split('@');
    const person = addPerson(work, { kind: 'staff', name, email });
    givePackage(work, BY_COMMAND, person.id, 'administrator');
    return person;
  }
  if (found.kind === 'contact') throw new CommandRefused(said('commands:adminContact', { email, name: found.name }));
  changePerson(work, BY_COMMAND, {
    ...{ id: found.id, version: found.version, changes: { role: 'administrator', active: true } },
  });
  return personById(work.tx, found.id) ?? found;
}

/**
 * Makes a link by which an address becomes an administrator: on an empty folder by a first start,
 * later by choosing a password. It works once, for an hour.
 */
export function inviteAdministrator(house: House, typed: string | undefined): Said {
  const email = addressIn(typed);
  const { url, secret } = house.config;
  return write(house, (work) => {
    const { tx, now } = work;
    if (!isLaid(tx))
      return said('commands:firstStart', { url: `${url}/start/${firstStartLink(tx, secret, email, now)}` });
    const { id, name } = administrator(work, email);
    const { token } = linkFor(tx, secret, { purpose: 'reset', personId: id, targetId: id, now });
    return said('commands:adminInvited', { name, email, url: `${url}/welcome/${token}` });
  });
}

/** Makes a link by which somebody chooses another password. It works once, for an hour. */
export function resetPassword(house: House, typed: string | undefined): Said {
  const email = addressIn(typed);
  const { url, secret } = house.config;
  return write(house, ({ tx, now }) => {
    const person = personByEmail(tx, email);
    if (person?.kind !== 'staff' || !person.active) throw new CommandRefused(said('commands:adminUnknown', { email }));
    // Whoever lost their password may have lost what computes the code after it.
    endCode(tx, person.id);
    endPasskeys(tx, person.id);
    const { token } = linkFor(tx, secret, { purpose: 'reset', personId: person.id, targetId: person.id, now });
    return said('commands:adminReset', { name: person.name, url: `${url}/welcome/${token}` });
  });
}

/** Lets people sign in by passwords again: where the providers that they signed in by can’t be reached. */
export function passwordsOn(house: House): Said {
  write(house, (work) => {
    setPasswords(work.tx, true);
    noteGround(work, 'desk', 'sign-in', { kind: 'passwords', on: true });
  });
  return said('commands:passwordsOn');
}

/** The administrators there are, and how they come in. */
export function listAdministrators(db: Reader): readonly Said[] {
  if (!isLaid(db)) return [said('commands:adminNotLaid')];
  return db
    .select()
    .from(people)
    .where(
      sql`exists (select 1 from ${grants} where ${grants.right} = 'rights' and ${grants.subject} = '@' || ${people.id})`,
    )
    .orderBy(asc(people.name))
    .all()
    .map((person) => {
      const last = db
        .select({ at: session.updatedAt })
        .from(session)
        .where(eq(session.userId, person.id))
        .orderBy(desc(session.updatedAt))
        .limit(1)
        .get();
      const state = !person.active
        ? said('commands:adminInactive')
        : !hasPassword(db, person.id)
          ? said('commands:adminNoPassword')
          : last
            ? said('commands:adminSeen', { at: last.at.toISOString() })
            : said('commands:adminNotSeen');
      return said('commands:adminLine', { name: person.name, email: person.email, state });
    });
}
