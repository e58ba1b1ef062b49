import type { AccessPlan, Disclosure } from '@tolvek/core/access';
import type { RanRule } from '@tolvek/core/form';
import type { Field, Stage } from '@tolvek/core/register';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designText } from '../platform/designText.ts';

/** What happened to an access plan; words are made from it where it is shown. */
export type PlanEvent =
  | { readonly kind: 'brought'; readonly rules: readonly string[] }
  | { readonly kind: 'protected'; readonly field: string; readonly like: string }
  | { readonly kind: 'allowed' | 'ended'; readonly way: Disclosure; readonly words: string };

/** What happened to the access plans of registers: rows are only ever added. */
export const planHistory = sqliteTable(
  'plan_history',
  {
    id: text().primaryKey(),
    registerId: text().notNull(),
    at: integer().notNull(),
    actorId: text().notNull(),
    event: text({ mode: 'json' }).notNull().$type<PlanEvent>(),
  },
  (table) => [index('plan_history_register').on(table.registerId, table.at)],
);

export const registers = sqliteTable('registers', {
  id: text().primaryKey(),
  key: text().notNull().unique(),
  name: text().notNull(),
  /** Before the number: `AC` in `AC-00042`. */
  prefix: text().notNull(),
  nextNumber: integer().notNull().default(1),
  fields: designText<readonly Field[]>().notNull(),
  stages: designText<readonly Stage[]>().notNull(),
  access: designText<AccessPlan>().notNull(),
  deskGroups: designText<readonly string[]>().notNull(),
  /** Rules that were applied to requests that were there: their fields are made by these as well. */
  ran: designText<readonly RanRule[]>().notNull().default([]),
  /** Its requests are read here and never taken out of the house. */
  staysIn: integer({ mode: 'boolean' }).notNull().default(false),
});
