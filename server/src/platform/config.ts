import { said } from '@tolvek/words';
import { z } from 'zod';
import { CannotStart } from './cannotStart.ts';

const schema = z
  .object({
    /** `demo` brings its own mail stand-in, demo people and a clock that can be moved. */
    TOLVEK_MODE: z.enum(['demo', 'production']).default('production'),
    PORT: z.coerce.number().int().min(0).max(65_535).default(4310),
    HOST: z.string().default('127.0.0.1'),
    TOLVEK_DATA: z.string().min(1).default('.data'),
    TOLVEK_URL: z.url().optional(),
    TOLVEK_SECRET: z.string().min(32),
    TOLVEK_SMTP: z.url({ protocol: /^smtps?$/ }),
    /** Where emails to the desk come in: the mail server of the house brings them here. */
    TOLVEK_MAIL_IN: z.url({ protocol: /^smtp$/ }).optional(),
    /** What sends text messages: a gateway of the OMA interface for messaging, its token, and the number they come from. */
    TOLVEK_TEXTS: z.url({ protocol: /^https?$/ }).optional(),
    TOLVEK_TEXTS_TOKEN: z.string().min(1).optional(),
    TOLVEK_TEXTS_FROM: z
      .string()
      .regex(/^\+\d{5,15}$/)
      .optional(),
    /** What a first start suggests: what the desk is called, the house it belongs to, and who emails come from. */
    TOLVEK_DESK: z.string().trim().max(60).default(''),
    TOLVEK_STATION: z.string().trim().max(80).default(''),
    TOLVEK_MAIL_FROM: z.string().min(3).optional(),
    /** Proxies of our own in front of the application: whose word on a caller’s address is taken. */
    TOLVEK_PROXY: z.coerce.number().int().min(0).max(10).default(0),
    TOLVEK_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
  })
  .refine(({ TOLVEK_TEXTS: texts, TOLVEK_TEXTS_FROM: from }) => texts === undefined || from !== undefined, {
    path: ['TOLVEK_TEXTS_FROM'],
  });

export interface Config {
  readonly mode: 'demo' | 'production';
  readonly port: number;
  readonly host: string;
  readonly data: string;
  readonly url: string;
  readonly secret: string;
  readonly smtp: string;
  /** Where emails to the desk come in, `smtp://host:port`; null where nobody would read them. */
  readonly mailIn: string | null;
  /** What sends text messages; null where nothing does, in the demo its stand-in. */
  readonly texts: { readonly url: string; readonly token: string; readonly from: string } | null;
  /** What a first start suggests; empty where nothing was said. From then on the desk is as it is laid. */
  readonly desk: {
    readonly name: string;
    readonly organisation: string;
    readonly sender: string;
    /** The name that emails came from, where it was said. */
    readonly senderName: string;
  };
  /** Trusted proxies in front of the application. */
  readonly proxies: number;
  /** How many times the usual number of calls a caller may make; demos and tests make many. */
  readonly pace: number;
  readonly log: 'silent' | 'error' | 'warn' | 'info' | 'debug';
}

/** What helps with a setting that is wrong. */
const HINTS: Readonly<Record<string, 'commands:hintSecret' | 'commands:hintSmtp' | 'commands:hintMailIn'>> = {
  TOLVEK_SECRET: 'commands:hintSecret',
  TOLVEK_SMTP: 'commands:hintSmtp',
  TOLVEK_MAIL_IN: 'commands:hintMailIn',
};

/** Thrown with one line per setting that is missing or wrong. */
export class ConfigRefused extends CannotStart {}

/** The address and the name in a sender as emails write it: `The desk <desk@example.org>` (RFC 5322, 3.4). */
function senderIn(written: string): { readonly sender: string; readonly senderName: string } {
  const [, name = '', address = written] = /^\s*"?(.*?)"?\s*<([^>]+)>\s*$/.exec(written) ?? [];
  return { sender: address.trim(), senderName: name.trim() };
}

/** Reads the configuration from the environment, or refuses with every reason at once. */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const parsed = schema.safeParse(env);
  if (!parsed.success) {
    const reasons = parsed.error.issues.map((issue) => {
      const name = String(issue.path[0]);
      const given = { name, hint: said(HINTS[name] ?? 'commands:hintNone') };
      return said(env[name] === undefined ? 'commands:settingMissing' : 'commands:settingWrong', given);
    });
    throw new ConfigRefused(said('commands:cannotStart', { reasons }));
  }
  const { data } = parsed;
  const url = data.TOLVEK_URL ?? `http://${data.HOST}:${data.PORT}`;
  return {
    mode: data.TOLVEK_MODE,
    port: data.PORT,
    host: data.HOST,
    data: data.TOLVEK_DATA,
    url,
    secret: data.TOLVEK_SECRET,
    smtp: data.TOLVEK_SMTP,
    mailIn: data.TOLVEK_MAIL_IN ?? (data.TOLVEK_MODE === 'demo' ? 'smtp://127.0.0.1:0' : null),
    texts:
      data.TOLVEK_TEXTS === undefined
        ? null
        : { url: data.TOLVEK_TEXTS, token: data.TOLVEK_TEXTS_TOKEN ?? '', from: data.TOLVEK_TEXTS_FROM ?? '' },
    desk: {
      name: data.TOLVEK_DESK,
      organisation: data.TOLVEK_STATION,
      ...senderIn(data.TOLVEK_MAIL_FROM ?? ''),
    },
    proxies: data.TOLVEK_PROXY,
    pace: data.TOLVEK_MODE === 'demo' ? 100 : 1,
    log: data.TOLVEK_LOG,
  };
}
