import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { people } from '../people/tables.ts';

/** Duties that people want somebody else to take, and what became of it. */
export const dutyOffers = sqliteTable(
  'duty_offers',
  {
    id: text().primaryKey(),
    /** Key of the roster. */
    roster: text().notNull(),
    /** Epoch ms. */
    fromAt: integer().notNull(),
    untilAt: integer().notNull(),
    personId: text()
      .notNull()
      .references(() => people.id),
    /** Who is asked; null: whoever of the roster takes it. */
    askedId: text().references(() => people.id),
    note: text().notNull(),
    state: text({ enum: ['open', 'taken', 'declined', 'withdrawn'] }).notNull(),
    /** Who took it. */
    takenBy: text().references(() => people.id),
    createdAt: integer().notNull(),
  },
  (table) => [index('duty_offers_open').on(table.state, table.untilAt), index('duty_offers_until').on(table.untilAt)],
);

/** Until when (epoch ms) whoever comes on duty was told so, by roster. */
export const dutiesTold = sqliteTable('duties_told', {
  roster: text().primaryKey(),
  at: integer().notNull(),
});
