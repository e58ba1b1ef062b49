import { createHash } from 'node:crypto';
import type { Request } from 'express';
import type { Config } from '../config.ts';
import { cookieOf, cookiePrefix, signatureOf, unsigned } from './session.ts';

/** Accounts a device is known for; the one that signed in the longest ago gives way. */
const ACCOUNTS = 8;

/** What stands for an account in the cookie of a device: its address is not to be read there. */
const markOf = (account: string): string => createHash('sha256').update(account).digest('base64url').slice(0, 16);

const nameOf = (config: Pick<Config, 'url'>): string => `${cookiePrefix(config)}.device`;

function marksOf(config: Config, request: Pick<Request, 'headers'>): readonly string[] {
  const cookie = cookieOf(request, nameOf(config));
  const marks = cookie === undefined ? undefined : unsigned(config.secret, cookie);
  return marks?.split('~') ?? [];
}

/** Whether this device signed in to an account before; its cookie says so, and is signed. */
export const isKnownDevice = (config: Config, request: Pick<Request, 'headers'>, account: string): boolean =>
  marksOf(config, request).includes(markOf(account));

/** The cookie of a device that has signed in to an account: its name and value. */
export function deviceCookie(
  config: Config,
  request: Pick<Request, 'headers'>,
  account: string,
): readonly [name: string, value: string] {
  const mark = markOf(account);
  const marks = [mark, ...marksOf(config, request).filter((each) => each !== mark)].slice(0, ACCOUNTS).join('~');
  return [nameOf(config), `${marks}.${signatureOf(config.secret, marks)}`];
}
