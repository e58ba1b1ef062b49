import type { Disclosure, RuleChanges } from '@tolvek/core/access';
import type { RanRule } from '@tolvek/core/form';
import type { Words } from '@tolvek/words';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { designs } from '../design/tables.ts';
import { designText } from '../platform/designText.ts';

/** What became of the rules of a plan by their names, and the labels of fields whose reading is noted, or not any more. */
export type PlanChanges = RuleChanges & {
  readonly noted?: readonly string[];
  readonly notNoted?: readonly string[];
  /** Labels of fields that have their place from then on. */
  readonly placed?: readonly string[];
  /** Whether what holds where no rule says otherwise became otherwise. */
  readonly base?: boolean;
  /** Whether others read whole requests by a condition. */
  readonly readers?: boolean;
};

/** What happened to an access plan; words are made from it where it is shown. */
export type PlanEvent =
  | { readonly kind: 'brought'; readonly rules: readonly string[] }
  | { readonly kind: 'put'; readonly changes: PlanChanges; readonly note: string }
  | { readonly kind: 'protected'; readonly field: string; readonly like: string }
  | { readonly kind: 'placed'; readonly fields: readonly string[] }
  | { readonly kind: 'allowed' | 'ended'; readonly way: Disclosure; readonly words: Words };

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

/** What happens to a register; the register itself is a design of the same id. */
export const registers = sqliteTable('registers', {
  id: text()
    .primaryKey()
    .references(() => designs.id),
  nextNumber: integer().notNull().default(1),
  /** Rules that were applied to requests that were there: their fields are made by these as well. */
  ran: designText<readonly RanRule[]>().notNull().default([]),
});
