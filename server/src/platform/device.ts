import { randomBytes } from 'node:crypto';
import { refused } from '@tolvek/words';
import { and, eq, isNull } from 'drizzle-orm';
import type { Request, Response } from 'express';
import type { House } from './house.ts';
import { hashOf, linkBehind } from './links.ts';
import { Problem } from './problem.ts';
import { cookieOf, cookiePrefix, keepCookie, type Session } from './signIn/session.ts';
import { links } from './tables.ts';
import { write } from './work.ts';

/** As long as a link can be set to work. */
const LASTS = 400 * 24 * 3_600_000;

/** A call, as far as it tells on which device it is made, and by whom. */
interface Through {
  readonly request: Request;
  readonly response: Response;
  readonly session: Session | null;
}

/**
 * A link that stands for one person opens on the device on which it was opened first, and wherever they are signed in: on
 * any other, whoever holds it has to prove who they are, for it may have been passed on. Devices are told apart by a cookie
 * that holds nothing else.
 *
 * @throws Problem 401 `prove`
 */
export function openedHere(house: House, token: string, { request, response, session }: Through): void {
  const link = linkBehind(house.db, token);
  // What there is none of is said by whoever opens it.
  if (!link) return;
  const { id, personId, device } = link;
  if (session?.viewer.personId === personId) return;
  const name = `${cookiePrefix(house.config)}.device`;
  const shown = cookieOf(request, name);
  if (device !== null) {
    if (shown !== undefined && hashOf(shown) === device) return;
    throw new Problem(401, 'prove', refused('proveLink'));
  }
  const here = shown ?? randomBytes(24).toString('base64url');
  const first = write(house, ({ tx }) =>
    tx
      .update(links)
      .set({ device: hashOf(here) })
      .where(and(eq(links.id, id), isNull(links.device)))
      .run(),
  );
  if (first.changes === 0) throw new Problem(401, 'prove', refused('proveLink'));
  if (shown === undefined) keepCookie(response, house.config, { name, value: here, lasts: LASTS });
}
