import type { Hearing } from '@tolvek/core/notice';
import type { Audience, Right } from '@tolvek/core/people';
import type { Values } from '@tolvek/core/register';
import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Conditions on profiles that access plans name, by the key of the register: in force, or as they are being written. */
export const profileConditions = sqliteTable(
  'profile_conditions',
  {
    register: text().notNull(),
    isDraft: integer({ mode: 'boolean' }).notNull(),
    condition: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.register, table.isDraft, table.condition] })],
);

/** Staff and contacts in one table; staff sign in with the account of the same id. */
export const people = sqliteTable(
  'people',
  {
    id: text().primaryKey(),
    kind: text({ enum: ['staff', 'contact'] }).notNull(),
    name: text().notNull(),
    /** The address that is shown and written to, in small letters; all that find them are in `addresses`. */
    email: text().notNull().unique(),
    active: integer({ mode: 'boolean' }).notNull().default(true),
    /** What they do at the station, shown where the demo offers them for sign-in. */
    does: text().notNull().default(''),
    /** What pages and emails are read in; null until it is known. */
    language: text({ enum: ['en', 'de'] }),
    /** Where they are kept in step from. */
    source: text({ enum: ['local', 'directory'] })
      .notNull()
      .default('local'),
    /** What the desk knows of them besides, by the keys of the fields of profiles. */
    profile: text({ mode: 'json' }).notNull().$type<Values>().default({}),
    /** The record that this one became a part of, when both were the same person. */
    mergedInto: text(),
    /** When it was taken back as if it had never come, epoch ms: it stands in no list, and only names what names it. */
    removedAt: integer(),
    /** Their name and all addresses that find them, in plain letters: what they are looked for by. */
    sought: text().notNull().default(''),
    /** What changes of the person rise by. */
    version: integer().notNull().default(1),
    /** When they were invited to sign in, epoch ms; null when they never were. */
    invitedAt: integer(),
    /** When they left or were made inactive, epoch ms. */
    leftAt: integer(),
    /** Until when they have seen what stands under the bell, epoch ms. */
    bellSeenAt: integer(),
    /** What they chose of their emails; null: as the desk has it. */
    hearing: text({ mode: 'json' }).$type<Hearing>(),
  },
  (table) => [
    index('people_by_name').on(table.name, table.id),
    // Gone through as a whole for every word that is looked for, without their records.
    index('people_sought').on(table.sought, table.id),
    // How many there are of each kind.
    index('people_by_kind').on(table.kind, table.active, table.mergedInto, table.removedAt),
  ],
);

/** When somebody is away, and who decides in their place meanwhile. Days are ISO 8601, included. */
export const absences = sqliteTable(
  'absences',
  {
    id: text().primaryKey(),
    personId: text()
      .notNull()
      .references(() => people.id),
    fromDay: text().notNull(),
    /** Null until they are back. */
    untilDay: text(),
    substituteId: text().references(() => people.id),
  },
  (table) => [
    index('absences_person').on(table.personId, table.fromDay),
    index('absences_substitute').on(table.substituteId),
  ],
);

/** Who takes whose place today at seats that are held alone, or by groups that all are away from: computed from absences. */
export const standIns = sqliteTable(
  'stand_ins',
  {
    /** A person’s word, or the key of a group. */
    holder: text().notNull(),
    personId: text()
      .notNull()
      .references(() => people.id),
  },
  (table) => [primaryKey({ columns: [table.holder, table.personId] }), index('stand_ins_person').on(table.personId)],
);

/** Files of people that were taken in. */
export const peopleImports = sqliteTable(
  'people_imports',
  {
    id: text().primaryKey(),
    /** Epoch ms. */
    at: integer().notNull(),
    by: text().notNull(),
    kind: text({ enum: ['staff', 'contact'] }).notNull(),
    /** What the file was called. */
    file: text().notNull(),
    added: integer().notNull(),
    changed: integer().notNull(),
    gone: integer().notNull(),
    /** When all of it was done, epoch ms; null while it is under way, or where it broke off. */
    endedAt: integer(),
    undoneAt: integer(),
  },
  (table) => [index('people_imports_at').on(table.at)],
);

/** What an import did to whom, in order, so that it can be undone. */
export const peopleImportSteps = sqliteTable(
  'people_import_steps',
  {
    importId: text()
      .notNull()
      .references(() => peopleImports.id),
    place: integer().notNull(),
    step: text({ mode: 'json' }).notNull().$type<object>(),
  },
  (table) => [primaryKey({ columns: [table.importId, table.place] })],
);

/** Every address that somebody is found by. */
export const addresses = sqliteTable(
  'addresses',
  {
    /** In small letters. */
    address: text().primaryKey(),
    personId: text()
      .notNull()
      .references(() => people.id),
  },
  (table) => [index('addresses_person').on(table.personId)],
);

export const groups = sqliteTable('groups', {
  key: text().primaryKey(),
  name: text().notNull(),
  isTeam: integer({ mode: 'boolean' }).notNull().default(false),
  /** What it is for. */
  about: text().notNull().default(''),
  /** Where its members get together what goes to the group; empty: each gets theirs. */
  mailbox: text().notNull().default(''),
  source: text({ enum: ['local', 'directory'] })
    .notNull()
    .default('local'),
  /** Whom it holds besides those let in one by one: everybody whom this means. */
  rule: text({ mode: 'json' }).$type<Audience>(),
  /** Offered nowhere any more; what names it keeps it. */
  retired: integer({ mode: 'boolean' }).notNull().default(false),
  /** When it was deleted, epoch ms: it stands in no list, and only names what names it. */
  removedAt: integer(),
  /** How many people are in it today: counted where it is settled who is. */
  members: integer().notNull().default(0),
  version: integer().notNull().default(1),
});

/**
 * How people and groups come into groups: as it was said, with days. Days are ISO 8601, included;
 * null where there is no beginning or no end.
 */
export const groupEntries = sqliteTable(
  'group_entries',
  {
    id: text().primaryKey(),
    groupKey: text()
      .notNull()
      .references(() => groups.key),
    /** One of the two is there. */
    personId: text().references(() => people.id),
    memberGroup: text().references(() => groups.key),
    fromDay: text(),
    untilDay: text(),
    /** `rule`: computed from the group’s rule. */
    source: text({ enum: ['local', 'directory', 'rule'] })
      .notNull()
      .default('local'),
  },
  (table) => [
    index('group_entries_group').on(table.groupKey),
    index('group_entries_person').on(table.personId),
    index('group_entries_member').on(table.memberGroup),
  ],
);

/** Who is in which group today, through groups in groups as well: computed from the entries. */
export const memberships = sqliteTable(
  'memberships',
  {
    groupKey: text()
      .notNull()
      .references(() => groups.key),
    personId: text()
      .notNull()
      .references(() => people.id),
  },
  (table) => [
    primaryKey({ columns: [table.groupKey, table.personId] }),
    // Asked for at every call: which groups who calls belongs to.
    index('memberships_person').on(table.personId, table.groupKey),
  ],
);

/** What is given to whom as the desk’s defaults: a right, to everyone of the staff, to a group or to one person. */
export const grants = sqliteTable(
  'grants',
  {
    /** `*` for everyone of the staff, the key of a group, or `@` and the id of a person. */
    subject: text().notNull(),
    right: text().notNull().$type<Right>(),
  },
  (table) => [primaryKey({ columns: [table.subject, table.right] }), index('grants_right').on(table.right)],
);

/** Where a register gives a right that the desk does not give a subject, or does not give one that the desk does. */
export const registerGrants = sqliteTable(
  'register_grants',
  {
    registerId: text().notNull(),
    /** As in `grants`. */
    subject: text().notNull(),
    right: text().notNull().$type<Right>(),
    given: integer({ mode: 'boolean' }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.registerId, table.subject, table.right] }),
    index('register_grants_subject').on(table.subject),
  ],
);

/** Registers that stand apart: what the desk gives counts for nothing there. */
export const registersApart = sqliteTable('registers_apart', { registerId: text().primaryKey() });

/** What was set of people and groups, by whom and when: rows are only ever added. */
export const groundHistory = sqliteTable(
  'ground_history',
  {
    id: text().primaryKey(),
    /** Epoch ms. */
    at: integer().notNull(),
    /** A person’s id; empty for the application itself and for who starts it. */
    by: text().notNull(),
    about: text({ enum: ['person', 'group', 'everyone', 'register', 'desk'] }).notNull(),
    /** The person’s id, the group’s key, the register’s id, or what of the desk. */
    key: text().notNull(),
    change: text({ mode: 'json' }).notNull().$type<object>(),
  },
  (table) => [
    index('ground_history_about').on(table.about, table.key, table.at),
    index('ground_history_at').on(table.at),
    index('ground_history_register')
      .on(sql`json_extract(change, '$.register')`)
      .where(sql`json_extract(change, '$.register') is not null`),
  ],
);
