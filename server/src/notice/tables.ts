import type { Letter, NoticeCause } from '@tolvek/core/notice';
import type { Language } from '@tolvek/words/speech';
import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { packedJson } from './packed.ts';

/** A letter as it was worded when it first went out, with the way its button leads. */
export interface Worded {
  readonly letter: Letter;
  /** What it is written in; English where it is not said. */
  readonly language?: Language;
  /** Path at the desk; a link of its own is added to it by its id. */
  readonly path: string;
  readonly link: string | null;
}

/** A letter as it was written before notices were worded when they go out. */
export interface Written {
  readonly text: string;
  readonly html: string;
}

/** What a program is told, as it was when it first went out. */
export interface Posted {
  /** JSON, as it is signed. */
  readonly body: string;
}

/** All that went out once stays as it is, so that it is the same when it goes again. */
export type Said = Worded | Written | Posted;

const said = packedJson<Said>();

/**
 * Who is to hear of what: written in the transaction that causes it, worded and sent after it, by
 * what its reader may read then.
 */
export const notices = sqliteTable(
  'notices',
  {
    id: text().primaryKey(),
    requestId: text(),
    /** Null for an address that belongs to nobody yet. */
    personId: text(),
    /** The group that gets it at an address of its own; null for what goes to one person or address. */
    groupKey: text(),
    /** The program that is told, by its key; null for what goes by email. */
    program: text(),
    /** How it reaches its reader. `bell`: it is not sent, and stands under the bell alone. */
    way: text({ enum: ['email', 'text', 'bell'] })
      .notNull()
      .default('email'),
    kind: text().notNull(),
    /** Which notice of its form’s own, by key; null for what is usual. */
    rule: text(),
    /** Null once it went, and for what was written before causes were kept. */
    cause: text({ mode: 'json' }).$type<NoticeCause>(),
    toName: text().notNull(),
    toAddress: text().notNull(),
    /** Empty until it is worded. */
    subject: text().notNull().default(''),
    /** Null until it is worded, and again when it is kept no longer. */
    said: said(),
    /**
     * `sending`: handed to the mail server just now; what becomes of it is not known yet. `dropped`:
     * there was nothing left to tell, nobody to tell it to, or its reader wants none of its kind.
     * `gathering`: it goes at a time of its reader’s, with what else goes then; `gathered`: it went in another.
     */
    state: text({ enum: ['waiting', 'sending', 'sent', 'failed', 'dropped', 'gathering', 'gathered'] }).notNull(),
    /** The one it went in. */
    inId: text(),
    /**
     * Why it was dropped: its reader wants none of its kind, nothing was left to tell, its form does not send it, its
     * reader may not read what it would tell of, or has no number that a text message could go to.
     */
    why: text({ enum: ['choice', 'nothing', 'off', 'hidden', 'unreachable'] }),
    attempts: integer().notNull().default(0),
    nextAttemptAt: integer().notNull(),
    lastError: text(),
    createdAt: integer().notNull(),
    sentAt: integer(),
  },
  (table) => [
    index('notices_left')
      .on(table.program, table.way, table.state, table.nextAttemptAt)
      .where(sql`state in ('waiting', 'sending', 'failed')`),
    index('notices_gathering').on(table.nextAttemptAt).where(sql`state = 'gathering'`),
    index('notices_person').on(table.personId, table.createdAt).where(sql`person_id is not null`),
    index('notices_request').on(table.requestId, table.createdAt),
    index('notices_created').on(table.createdAt, table.id),
    index('notices_in').on(table.inId).where(sql`in_id is not null`),
    index('notices_unconfirmed').on(table.toAddress, table.createdAt).where(sql`kind in ('confirm', 'go-on')`),
    // What did not go by email and is kept for the bell, until it is kept no longer.
    index('notices_kept').on(table.createdAt).where(sql`cause is not null and state in ('dropped', 'sent')`),
    index('notices_said').on(table.sentAt).where(sql`state = 'sent' and said is not null`),
  ],
);

/** Until when notices were looked at that the days alone can bring, by form; moments are epoch ms. */
export const noticeDays = sqliteTable('notice_days', {
  formId: text().primaryKey(),
  at: integer().notNull(),
  /** The moment that is being looked at, from the oldest request to the newest; null where that is done. */
  turning: integer(),
  /** The request that was looked at last, by when it arrived and its id. */
  doneAt: integer(),
  doneId: text(),
});

/**
 * By how many requests the groups of notices have changed without being told of at once: told, and taken away, when the work
 * that does it is over.
 */
export const noticeTurns = sqliteTable(
  'notice_turns',
  {
    formId: text().notNull(),
    /** The notice, by its key. */
    rule: text().notNull(),
    /** What makes the group, as JSON. */
    value: text().notNull(),
    turned: integer().notNull(),
    /** The request that changed it last; null where that was deleted. */
    last: text(),
  },
  (table) => [primaryKey({ columns: [table.formId, table.rule, table.value] })],
);

/** What has not gone yet, in the words of the index that finds it. */
export const LEFT = sql`state in ('waiting', 'sending', 'failed')`;

/** What waits for a time of its reader’s, in the words of the index that finds it. */
export const GATHERING = sql`state = 'gathering'`;

/** What the stand-in for a gateway of text messages received; the Mailroom shows these. */
export const texts = sqliteTable(
  'texts',
  {
    id: text().primaryKey(),
    /** What the sender calls it: the same message that comes twice is one. */
    correlator: text().notNull().unique(),
    receivedAt: integer().notNull(),
    to: text().notNull(),
    text: text().notNull(),
  },
  (table) => [index('texts_received').on(table.receivedAt)],
);

/** What the mail stand-in received; the Mailroom shows these. */
export const letters = sqliteTable(
  'letters',
  {
    id: text().primaryKey(),
    messageId: text().notNull().unique(),
    receivedAt: integer().notNull(),
    from: text().notNull(),
    to: text().notNull(),
    subject: text().notNull(),
    text: text().notNull(),
    html: text().notNull(),
    headers: text({ mode: 'json' }).notNull().$type<readonly { name: string; value: string }[]>(),
  },
  (table) => [index('letters_received').on(table.receivedAt)],
);
