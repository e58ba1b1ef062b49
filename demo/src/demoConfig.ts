import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { type Config, readConfig } from '@tolvek/server';
import { DESK_AS_LAID } from './desk.ts';

/**
 * The demo's configuration: as in production, with a secret of its own kept in the data folder and
 * no outside mail server.
 */
export function demoConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const data = resolve(env.TOLVEK_DATA ?? '.data');
  mkdirSync(data, { recursive: true });
  const file = join(data, 'secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(36).toString('base64'), { mode: 0o600 });
  return readConfig({
    TOLVEK_LOG: 'warn',
    // What the demo of an earlier release was called; a new one is laid like any desk.
    TOLVEK_DESK: DESK_AS_LAID.name,
    TOLVEK_STATION: DESK_AS_LAID.organisation,
    TOLVEK_MAIL_FROM: DESK_AS_LAID.sender.address,
    ...env,
    TOLVEK_MODE: 'demo',
    TOLVEK_DATA: data,
    TOLVEK_SECRET: readFileSync(file, 'utf8').trim(),
    TOLVEK_SMTP: 'smtp://127.0.0.1',
  });
}
