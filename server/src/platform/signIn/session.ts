import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import type { Viewer } from '@tolvek/core/people';
import { eq } from 'drizzle-orm';
import type { Request, Response } from 'express';
import type { Config } from '../config.ts';
import type { Database, Reader } from '../database.ts';
import { newId } from '../newId.ts';
import { session } from '../tables.ts';

/** A session behind a cookie: whose, and until when. */
export interface Session {
  readonly token: string;
  readonly viewer: Viewer;
  /** A program calls, by a key of its own: it reaches what is made for programs. */
  readonly isProgram?: true;
}

/** What has to be known to say who is calling. */
interface KnowsCallers {
  readonly db: Database;
  readonly config: Config;
  readonly viewerOf: (personId: string) => Viewer | null;
}

/** What somebody shows who calls without a cookie: `Authorization: Bearer …` (RFC 6750, 2.1); other ways are for others, such as a proxy. */
const SHOWN = /^Bearer(?:\s+(\S{1,200}))?/i;

const DAY = 24 * 3_600_000;
/** How long somebody stays signed in who does not come back. */
export const SESSION_LASTS = 14 * DAY;
/** A session that goes on is lengthened once a day. */
const LENGTHENED_AFTER = DAY;

/** Cookies of an address with TLS carry the prefix that keeps them to it. */
export const cookiePrefix = (config: Pick<Config, 'url'>): string =>
  config.url.startsWith('https:') ? '__Secure-tolvek' : 'tolvek';

/**
 * A cookie of a call by its name, decoded; undefined when there is none, or one that can’t be read.
 */
export function cookieOf(request: Pick<Request, 'headers'>, name: string): string | undefined {
  for (const part of request.headers.cookie?.split(';') ?? []) {
    const at = part.indexOf('=');
    if (at < 0 || part.slice(0, at).trim() !== name) continue;
    try {
      return decodeURIComponent(part.slice(at + 1).trim());
    } catch {
      return undefined;
    }
  }
  return undefined;
}

/** Has a browser keep a cookie that pages can’t read, for so long (ms); over TLS alone where the desk has it. */
export const keepCookie = (
  response: Pick<Response, 'cookie'>,
  { url }: Pick<Config, 'url'>,
  { name, value, lasts }: { readonly name: string; readonly value: string; readonly lasts: number },
): void =>
  void response.cookie(name, value, {
    ...{ httpOnly: true, sameSite: 'lax', secure: url.startsWith('https:'), path: '/', maxAge: lasts },
  });

/** Gives the cookies that the sign-in library gives. */
export function pass(headers: Headers, response: Pick<Response, 'append'>): void {
  for (const cookie of headers.getSetCookie()) response.append('Set-Cookie', cookie);
}

/** Signs a value as the sign-in library does: HMAC-SHA-256 with the secret, in Base64. */
export const signatureOf = (secret: string, value: string): string =>
  createHmac('sha256', secret).update(value).digest('base64');

/** A value behind which its own signature stands; undefined when that is not ours. */
export function unsigned(secret: string, signed: string): string | undefined {
  const dot = signed.lastIndexOf('.');
  if (dot < 1) return undefined;
  const [value, given] = [signed.slice(0, dot), Buffer.from(signed.slice(dot + 1))];
  const wanted = Buffer.from(signatureOf(secret, value));
  return given.length === wanted.length && timingSafeEqual(given, wanted) ? value : undefined;
}

const lookUps = new WeakMap<Database, (token: string) => { userId: string; expiresAt: number } | undefined>();

/** The session of a token: one statement, made ready once for each database. */
function sessionOf(db: Database, token: string): { userId: string; expiresAt: number } | undefined {
  let find = lookUps.get(db);
  if (!find) {
    const statement = db.$client.prepare(
      'select user_id as userId, expires_at as expiresAt from session where token = ?',
    );
    find = (each) => statement.get(each) as { userId: string; expiresAt: number } | undefined;
    lookUps.set(db, find);
  }
  return find(token);
}

/** The program that calls, by the key it shows; null where no key is shown, `unknown` for one that opens nothing. */
export function programOf(
  programBy: (key: string) => Viewer | null,
  request: Pick<Request, 'headers'>,
): Session | 'unknown' | null {
  const shown = SHOWN.exec(request.headers.authorization ?? '');
  if (!shown) return null;
  const viewer = programBy(shown[1] ?? '');
  return viewer ? { token: '', viewer, isProgram: true } : 'unknown';
}

/**
 * Who is calling, or null. It is looked up at every call, so that a sign-out and a person made
 * inactive take hold at once; the signature is checked first, so that a made-up token costs
 * nothing.
 */
export function callerOf({ db, config, viewerOf }: KnowsCallers, request: Pick<Request, 'headers'>): Session | null {
  const cookie = cookieOf(request, `${cookiePrefix(config)}.session_token`);
  const token = cookie === undefined ? undefined : unsigned(config.secret, cookie);
  const found = token === undefined ? undefined : sessionOf(db, token);
  if (!found || token === undefined || found.expiresAt <= Date.now()) return null;
  const viewer = viewerOf(found.userId);
  return viewer && { token, viewer };
}

/** Lets a session go on; true when its cookie has to be given again with a new end. */
export function lengthen(db: Reader, token: string): boolean {
  const found = db.select({ updatedAt: session.updatedAt }).from(session).where(eq(session.token, token)).get();
  const now = Date.now();
  if (!found || now - found.updatedAt.getTime() < LENGTHENED_AFTER) return false;
  db.update(session)
    .set({ updatedAt: new Date(now), expiresAt: new Date(now + SESSION_LASTS) })
    .where(eq(session.token, token))
    .run();
  return true;
}

/** Begins a session of somebody with an account. Gives the value of its cookie. */
export function beginSession(tx: Reader, config: Pick<Config, 'secret'>, userId: string, request: Request): string {
  const token = randomBytes(24).toString('base64url');
  const now = new Date();
  tx.insert(session)
    .values({
      ...{ id: newId(), token, userId, createdAt: now, updatedAt: now },
      expiresAt: new Date(now.getTime() + SESSION_LASTS),
      ...{ ipAddress: request.ip ?? null, userAgent: request.get('User-Agent')?.slice(0, 500) ?? null },
    })
    .run();
  return `${token}.${signatureOf(config.secret, token)}`;
}

export const endSession = (db: Reader, token: string): void => {
  db.delete(session).where(eq(session.token, token)).run();
};
