import type { Words } from '@tolvek/words';
import { sql } from 'drizzle-orm';
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** What the sign-in library keeps: its own names and columns. */
export const user = sqliteTable('user', {
  id: text().primaryKey(),
  name: text().notNull(),
  email: text().notNull().unique(),
  emailVerified: integer({ mode: 'boolean' }).notNull().default(false),
  image: text(),
  /** Whether a code is asked for after the password. */
  twoFactorEnabled: integer({ mode: 'boolean' }).default(false),
  createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
  updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
});

export const session = sqliteTable(
  'session',
  {
    id: text().primaryKey(),
    expiresAt: integer({ mode: 'timestamp_ms' }).notNull(),
    token: text().notNull().unique(),
    createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
    updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
    ipAddress: text(),
    userAgent: text(),
    userId: text()
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
  },
  (table) => [index('session_expires').on(table.expiresAt)],
);

export const account = sqliteTable(
  'account',
  {
    id: text().primaryKey(),
    accountId: text().notNull(),
    providerId: text().notNull(),
    userId: text()
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    accessToken: text(),
    refreshToken: text(),
    idToken: text(),
    accessTokenExpiresAt: integer({ mode: 'timestamp_ms' }),
    refreshTokenExpiresAt: integer({ mode: 'timestamp_ms' }),
    scope: text(),
    password: text(),
    createdAt: integer({ mode: 'timestamp_ms' }).notNull(),
    updatedAt: integer({ mode: 'timestamp_ms' }).notNull(),
  },
  (table) => [index('account_user').on(table.userId), index('account_subject').on(table.providerId, table.accountId)],
);

export const verification = sqliteTable(
  'verification',
  {
    id: text().primaryKey(),
    identifier: text().notNull(),
    value: text().notNull(),
    expiresAt: integer({ mode: 'timestamp_ms' }).notNull(),
    createdAt: integer({ mode: 'timestamp_ms' }),
    updatedAt: integer({ mode: 'timestamp_ms' }),
  },
  (table) => [index('verification_identifier').on(table.identifier), index('verification_expires').on(table.expiresAt)],
);

/** What codes after a password are computed from; as the sign-in library keeps it, encrypted. */
export const twoFactor = sqliteTable(
  'two_factor',
  {
    id: text().primaryKey(),
    secret: text().notNull(),
    backupCodes: text().notNull(),
    userId: text()
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    verified: integer({ mode: 'boolean' }).default(true),
    failedVerificationCount: integer().default(0),
    lockedUntil: integer({ mode: 'timestamp_ms' }),
  },
  (table) => [index('two_factor_user').on(table.userId)],
);

/** Keys on devices of people that prove who they are; as the sign-in library keeps them. */
export const passkey = sqliteTable(
  'passkey',
  {
    id: text().primaryKey(),
    /** What its owner calls it. */
    name: text(),
    publicKey: text().notNull(),
    userId: text()
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    credentialID: text('credential_id').notNull().unique(),
    counter: integer().notNull(),
    deviceType: text().notNull(),
    backedUp: integer({ mode: 'boolean' }).notNull(),
    transports: text(),
    createdAt: integer({ mode: 'timestamp_ms' }),
    aaguid: text(),
  },
  (table) => [index('passkey_user').on(table.userId)],
);

/** Who else proves who somebody is: providers of OpenID Connect. */
export const signInProviders = sqliteTable('sign_in_providers', {
  /** Part of the address that the provider leads back to. */
  id: text().primaryKey(),
  /** What people read on the button. */
  name: text().notNull(),
  /** Where its discovery document is found. */
  issuer: text().notNull(),
  clientId: text().notNull(),
  /** Encrypted; null for a public client. */
  secret: text(),
  active: integer({ mode: 'boolean' }).notNull().default(true),
  version: integer().notNull().default(1),
  /** Epoch ms. */
  madeAt: integer().notNull(),
});

/** Pictures of people by their ids, and that of the desk. */
export const pictures = sqliteTable('pictures', {
  key: text().primaryKey(),
  type: text({ enum: ['image/png', 'image/jpeg', 'image/webp'] }).notNull(),
  /** Changes with the bytes. */
  version: text().notNull(),
  bytes: blob({ mode: 'buffer' }).notNull(),
});

/** Small facts of the installation, such as where the demo clock stands. */
export const settings = sqliteTable('settings', { key: text().primaryKey(), value: text().notNull() });

/** The answers given to writes that may be sent again. */
export const idempotency = sqliteTable(
  'idempotency',
  {
    key: text().notNull(),
    /** Route and caller: the same key from somebody else is another key. */
    scope: text().notNull(),
    fingerprint: text().notNull(),
    answer: text({ mode: 'json' }).notNull().$type<unknown>(),
    createdAt: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.scope, table.key] }), index('idempotency_created').on(table.createdAt)],
);

/** Wrong codes that were typed for what somebody was sent to sign in by. */
export const codeTries = sqliteTable('code_tries', {
  linkId: text().primaryKey(),
  wrong: integer().notNull(),
});

/** Links in letters. Only a hash of the token is kept. */
export const links = sqliteTable(
  'links',
  {
    id: text().primaryKey(),
    tokenHash: text().notNull().unique(),
    purpose: text({
      enum: [
        ...(['confirm', 'follow', 'decide', 'resume', 'sent', 'first-start', 'invite', 'reset'] as const),
        ...(['shared', 'sign-in', 'owed', 'place', 'accept'] as const),
      ],
    }).notNull(),
    personId: text().notNull(),
    /** The waiting submission, the request, or the approval it opens. */
    targetId: text().notNull(),
    expiresAt: integer().notNull(),
    /** When it was used, or ended: it opens nothing any more. */
    usedAt: integer(),
    /** When it was made; null where it was made before that was kept. */
    createdAt: integer(),
    /** What is kept of the device on which it was opened first, where it opens on no other without proof. */
    device: text(),
  },
  (table) => [index('links_target').on(table.targetId), index('links_expires').on(table.expiresAt)],
);

/** Long work that somebody began: done a few things at a time, and gone on with after a restart. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text().primaryKey(),
    kind: text().notNull(),
    /** What it is about, as its kind knows it. */
    about: text({ mode: 'json' }).notNull().$type<object>(),
    /** Who began it; what it finds is told to them. */
    by: text().notNull(),
    state: text({ enum: ['waiting', 'running', 'done', 'failed', 'stopped'] }).notNull(),
    /** Things that were looked at, of so many; null where that is not known before. */
    looked: integer().notNull().default(0),
    of: integer(),
    /** What it came to, as its kind tells it. */
    result: text({ mode: 'json' }).$type<object>(),
    createdAt: integer().notNull(),
    endedAt: integer(),
  },
  (table) => [
    index('jobs_left').on(table.createdAt).where(sql`state in ('waiting', 'running')`),
    index('jobs_created').on(table.createdAt),
  ],
);

/** What was looked at that is noted: by itself, or through the eyes of another; and what was taken out as a file. */
export type Looked =
  | { readonly kind: 'read'; readonly fields: readonly string[] }
  | { readonly kind: 'taken-out'; readonly what: Words; readonly as: 'csv' | 'json' | 'xlsx' | 'ics' }
  | {
      readonly kind: 'seen-as';
      /** Whose eyes: a person by id, an invented member of groups, or nobody. */
      readonly as: { readonly person: string } | { readonly groups: readonly string[] } | null;
      readonly plan: 'force' | 'draft';
      readonly stage: string | null;
      /** The edition that it was looked at in, null: the form as it is; left out: the one they are given. */
      readonly edition?: string | null;
    };

/** Who looked at what: rows are only ever added, before the answer leaves. One for each page. */
export const readLog = sqliteTable(
  'read_log',
  {
    id: text().primaryKey(),
    at: integer().notNull(),
    /** Who looked, by id; empty for whoever has a link. */
    by: text().notNull(),
    registerId: text().notNull(),
    about: text({ mode: 'json' }).notNull().$type<Looked>(),
    /** The numbers of the requests; none for a file. */
    numbers: text({ mode: 'json' }).notNull().$type<readonly string[]>(),
  },
  (table) => [index('read_log_at').on(table.at)],
);
