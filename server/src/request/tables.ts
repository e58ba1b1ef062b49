import type { SharedResult, ValueChange } from '@tolvek/core/access';
import type { Audience } from '@tolvek/core/people';
import { priorities, type Values } from '@tolvek/core/register';
import type { RequestChange } from '@tolvek/core/request';
import type { KeptRouting, Routed } from '@tolvek/core/routing';
import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designStates } from '../design/tables.ts';
import { doors } from '../door/tables.ts';
import { forms } from '../form/tables.ts';
import { groups, people } from '../people/tables.ts';
import { registers } from '../register/tables.ts';
import type { Laid } from './laid.ts';

/** The phases of what is not finished. */
export const UNFINISHED = ['arrived', 'working', 'paused'] as const;
const phases = [...UNFINISHED, 'finished'] as const;

export const requests = sqliteTable(
  'requests',
  {
    id: text().primaryKey(),
    number: text().notNull().unique(),
    registerId: text()
      .notNull()
      .references(() => registers.id),
    formId: text()
      .notNull()
      .references(() => forms.id),
    releaseId: text()
      .notNull()
      .references(() => designStates.id),
    /** The release its values are computed by; null: the one it came by. */
    computedBy: text().references(() => designStates.id),
    /** The release whose deadlines it has; null: the one it came by. */
    plannedBy: text().references(() => designStates.id),
    /** None when the desk or another request made it. */
    doorId: text().references(() => doors.id),
    /** The id of the edition of its release in which it was asked; null: the form as it is. */
    edition: text(),
    /** The version of the text of its door that who asked agreed to. */
    consent: integer(),
    /** The language they agreed in; not known of what came before that was remembered. */
    consentIn: text({ enum: ['en', 'de'] }),
    /** Who asked: nobody where it is unnamed. */
    requesterId: text().references(() => people.id),
    /** Who says that they asked, where nobody has confirmed that the address is theirs. */
    claim: text({ mode: 'json' }).$type<{ readonly name: string; readonly email: string }>(),
    /** On whose behalf, and who typed it in, where these are others. */
    onBehalfId: text().references(() => people.id),
    enteredById: text().references(() => people.id),
    stage: text().notNull(),
    phase: text({ enum: phases }).notNull(),
    /** Team, priority and routing are empty for things. */
    team: text().references(() => groups.key),
    handlerId: text().references(() => people.id),
    /** Holders of the seats that are or were open, as words, in order, with spaces between; null: nobody decides. */
    deciders: text(),
    priority: text({ enum: priorities }),
    values: text({ mode: 'json' }).notNull().$type<Values>(),
    /** Of those routed before it was kept so: with its reasons, in the words of then. */
    routed: text({ mode: 'json' }).$type<KeptRouting | Routed>(),
    /** The nearest of its deadlines, epoch ms, as all moments in the database; the last one once it is finished. */
    due: integer(),
    version: integer().notNull().default(1),
    createdAt: integer().notNull(),
    updatedAt: integer().notNull(),
    finishedAt: integer(),
    /** Sent from a proof: marked, uncounted, telling nobody. */
    trial: integer({ mode: 'boolean' }).notNull().default(false),
  },
  (table) => [
    index('requests_unfinished_due').on(table.due, table.id, table.trial).where(sql`phase <> 'finished'`),
    // With the register at their end, so that what a tray counts is read from the index alone.
    index('requests_phase_due').on(table.phase, table.due, table.id, table.trial, table.registerId),
    index('requests_due').on(table.due, table.id, table.trial, table.registerId),
    // With all that says who works on it, so that whoever works on little goes through the index alone.
    index('requests_created').on(
      ...[table.createdAt, table.id, table.trial, table.registerId],
      ...[table.team, table.handlerId, table.deciders],
    ),
    index('requests_register').on(table.registerId, table.createdAt, table.id),
    index('requests_team').on(table.team, table.phase, table.due, table.trial),
    index('requests_handler').on(table.handlerId, table.phase, table.due, table.trial),
    index('requests_requester').on(table.requesterId, table.createdAt),
    index('requests_behalf').on(table.onBehalfId).where(sql`on_behalf_id is not null`),
    index('requests_door').on(table.doorId, table.createdAt, table.trial),
  ],
);

/**
 * How many requests there are of each kind, trials aside. Triggers keep it, whoever writes a
 * request: what a tray counts is added up here, and never by reading all requests.
 */
export const tallies = sqliteTable(
  'tallies',
  {
    registerId: text().notNull(),
    formId: text().notNull(),
    phase: text({ enum: phases }).notNull(),
    stage: text().notNull(),
    /** Empty: no team’s. */
    team: text().notNull(),
    /** Empty: nobody’s. */
    handlerId: text().notNull(),
    /** As of the requests; empty: nobody decides. */
    deciders: text().notNull(),
    n: integer().notNull(),
  },
  (table) => [
    primaryKey({
      columns: [table.registerId, table.formId, table.phase, table.stage, table.team, table.handlerId, table.deciders],
    }),
  ],
);

/**
 * How many requests that are worked on are due in each hour since 1970, trials aside; kept as tallies
 * are. What is due in a part of an hour is counted in the requests themselves.
 */
export const dues = sqliteTable(
  'dues',
  {
    registerId: text().notNull(),
    team: text().notNull(),
    handlerId: text().notNull(),
    deciders: text().notNull(),
    /** Moment ÷ 3,600,000 ms, rounded down. */
    hour: integer().notNull(),
    n: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.hour, table.registerId, table.team, table.handlerId, table.deciders] })],
);

/**
 * How many requests somebody handles that are not over, by what they weigh, trials aside; kept as tallies are. By these
 * whoever has the least to do is chosen, however much there is.
 */
export const handled = sqliteTable(
  'handled',
  {
    handlerId: text().notNull(),
    phase: text({ enum: phases }).notNull(),
    priority: text({ enum: priorities }).notNull(),
    /** Epoch ms; the last moment there is (ECMA-262, 21.4.1.1) where nothing is due. */
    due: integer().notNull(),
    n: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.handlerId, table.phase, table.priority, table.due] })],
);

/**
 * Answers that no other request may have: one row for each rule and request that holds them. Writes
 * come one after the other, so that each sees what those before it hold. What several hold already,
 * as a rule is younger than they are, stays with all of them: it is free when none is left.
 */
export const claims = sqliteTable(
  'claims',
  {
    registerId: text()
      .notNull()
      .references(() => registers.id),
    ruleId: text().notNull(),
    /** The answers as they are compared. */
    value: text().notNull(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
  },
  (table) => [
    primaryKey({ columns: [table.registerId, table.ruleId, table.value, table.requestId] }),
    index('claims_request').on(table.requestId),
  ],
);

/** What each request’s references point to, for the way back and for what is carried along live. */
export const pointers = sqliteTable(
  'pointers',
  {
    requestId: text()
      .notNull()
      .references(() => requests.id),
    field: text().notNull(),
    targetId: text()
      .notNull()
      .references(() => requests.id),
  },
  (table) => [
    primaryKey({ columns: [table.requestId, table.field, table.targetId] }),
    index('pointers_target').on(table.targetId),
  ],
);

/** Who may read a request besides those who work on it: each group and person once. */
export const shares = sqliteTable(
  'shares',
  {
    requestId: text()
      .notNull()
      .references(() => requests.id),
    /** Who reads it, as one word: the key of a group, or `@` and the id of a person. */
    holder: text().notNull(),
    /** The last day of it, ISO 8601; null where it has no end. */
    untilDay: text(),
    by: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.requestId, table.holder] }), index('shares_holder').on(table.holder)],
);

/** Who follows a request: hears of what becomes of it as long as they may read it. */
export const followers = sqliteTable(
  'followers',
  {
    requestId: text()
      .notNull()
      .references(() => requests.id),
    personId: text()
      .notNull()
      .references(() => people.id),
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.requestId, table.personId] }), index('followers_person').on(table.personId)],
);

/** Requests of a register that somebody lets others read: some of their fields, of those that meet a condition, until a day. */
export const sharedResults = sqliteTable(
  'shared_results',
  {
    id: text().primaryKey(),
    registerId: text().notNull(),
    name: text().notNull(),
    facts: text({ mode: 'json' }).notNull().$type<SharedResult['facts']>(),
    /** Keys of fields, and of columns of lines. */
    fields: text({ mode: 'json' }).notNull().$type<SharedResult['fields']>(),
    /** FEEL; empty: every request. */
    when: text().notNull(),
    /** Null: whoever holds its link. */
    audience: text({ mode: 'json' }).$type<Audience>(),
    /** ISO 8601, at the desk. */
    until: text().notNull(),
    takesOut: integer({ mode: 'boolean' }).notNull(),
    /** Who shared it, by id: nothing is told that they may not read. */
    by: text().notNull(),
    at: integer().notNull(),
    /** When it was ended by hand. */
    endedAt: integer(),
    /** The id of its link, where there is one. */
    linkId: text(),
  },
  (table) => [index('shared_results_by').on(table.by)],
);

/** Which requests are read by whom by what stands in them; the reader by its register and its id in the access plan. */
export const readings = sqliteTable(
  'readings',
  {
    reader: text().notNull(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    /** When the request came in, as in its row: a page in that order is found here alone. */
    createdAt: integer().notNull().default(0),
  },
  (table) => [
    primaryKey({ columns: [table.reader, table.requestId] }),
    index('readings_request').on(table.requestId),
    index('readings_created').on(table.reader, table.createdAt, table.requestId),
  ],
);

/** Requests that were deleted: what they held only as long as they can be put back. */
export const deletedRequests = sqliteTable(
  'deleted_requests',
  {
    id: text().primaryKey(),
    number: text().notNull(),
    registerId: text()
      .notNull()
      .references(() => registers.id),
    /** Epoch ms. */
    at: integer().notNull(),
    by: text().notNull(),
    reason: text().notNull(),
    /** The id it had, where that is kept; and everything there was of it, until it is put back or gone for good. */
    requestId: text(),
    laid: text({ mode: 'json' }).$type<Laid>(),
    putBackAt: integer(),
    putBackBy: text(),
  },
  (table) => [
    index('deleted_requests_register').on(table.registerId, table.at),
    index('deleted_requests_laid').on(table.at).where(sql`laid is not null`),
  ],
);

/** Requests that were merged into another, as they are about the same: as long as that is not undone. */
export const mergedRequests = sqliteTable(
  'merged_requests',
  {
    requestId: text()
      .primaryKey()
      .references(() => requests.id),
    intoId: text()
      .notNull()
      .references(() => requests.id),
    at: integer().notNull(),
    by: text().notNull(),
    /** The stage it was at before. */
    stage: text().notNull(),
    /** What the other took of it, as it changed there. */
    taken: text({ mode: 'json' }).notNull().$type<readonly ValueChange[]>(),
    /** What pointed to it and points to the other since. */
    moved: text({ mode: 'json' }).notNull().$type<readonly { readonly id: string; readonly field: string }[]>(),
    /** The decision that waited then, as it was; null where none did. */
    round: text({ mode: 'json' }).$type<Laid>(),
    /** As of the request. */
    deciders: text(),
  },
  (table) => [index('merged_requests_into').on(table.intoId)],
);

/** The next running number of a field, for each prefix. */
export const counters = sqliteTable(
  'counters',
  {
    registerId: text()
      .notNull()
      .references(() => registers.id),
    field: text().notNull(),
    prefix: text().notNull(),
    next: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.registerId, table.field, table.prefix] })],
);

/** Runs of a rule over the requests that were there, so that each can be taken back. */
export const ruleRuns = sqliteTable(
  'rule_runs',
  {
    id: text().primaryKey(),
    formId: text()
      .notNull()
      .references(() => forms.id),
    /** The rule’s id, and its name at the time. */
    rule: text().notNull(),
    name: text().notNull(),
    by: text().notNull(),
    at: integer().notNull(),
    takenBackAt: integer(),
  },
  (table) => [index('rule_runs_rule').on(table.formId, table.rule, table.at), index('rule_runs_at').on(table.at)],
);

/** What a run changed: values, kept for a while only. */
export const ruleRunChanges = sqliteTable(
  'rule_run_changes',
  {
    runId: text()
      .notNull()
      .references(() => ruleRuns.id, { onDelete: 'cascade' }),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    changes: text({ mode: 'json' }).notNull().$type<readonly ValueChange[]>(),
  },
  (table) => [primaryKey({ columns: [table.runId, table.requestId] })],
);

export type HistoryKind =
  | 'arrived'
  | 'fields'
  | 'stage'
  | 'handler'
  | 'comment'
  | 'decision'
  | 'due'
  | 'reminder'
  | 'escalation';

/** All that happened to a request; rows are only ever added. */
export const history = sqliteTable(
  'history',
  {
    id: text().primaryKey(),
    requestId: text()
      .notNull()
      .references(() => requests.id),
    at: integer().notNull(),
    /** Null when the application did it by itself. */
    actorId: text(),
    kind: text().notNull().$type<HistoryKind>(),
    /** Of what happened before it was kept as data; else empty, and words are made from the data. */
    words: text().notNull(),
    data: text({ mode: 'json' }).$type<RequestChange | null>(),
    changes: text({ mode: 'json' }).notNull().$type<readonly ValueChange[]>(),
    comment: text({ mode: 'json' }).$type<{
      text: string;
      visibility: 'internal' | 'requester' | 'handler';
      /** The id of whoever from outside it was written to alone. */
      whom?: string;
      /** What was sent with it, as files are named. */
      files?: readonly string[];
    } | null>(),
  },
  (table) => [index('history_request').on(table.requestId, table.at)],
);
