import { OPTION_COLOURS } from '@tolvek/core/register';
import { MOST_OF_VIEW, VIEW_FACTS, VIEW_PARTS, type ViewDesign } from '@tolvek/core/view';
import { z } from 'zod';
import { sharedAudience, whoFound } from '../people/shapes.ts';
import { field, vocabulary } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { fieldKey, formula, key, labelled, moment, named, revealed, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { savedViewHeads } from './heads.ts';
import { ledgerRow } from './shapes.ts';

/** A fact, or a field by its key. */
const subject = z.union([z.enum(VIEW_FACTS), fieldKey]);
/** A way to look at the requests or things of some registers. */
export const viewDesign = exactly<ViewDesign>()(
  z.strictObject({
    name: z.string().trim().max(120),
    of: z.array(key).max(MOST_OF_VIEW.registers).readonly(),
    when: formula,
    columns: z
      .array(z.strictObject({ of: subject, width: z.int().min(40).max(900).optional() }))
      .max(MOST_OF_VIEW.columns)
      .readonly(),
    groups: z.array(subject).max(MOST_OF_VIEW.groups).readonly(),
    orders: z
      .array(z.strictObject({ of: subject, down: z.boolean() }))
      .max(MOST_OF_VIEW.orders)
      .readonly(),
    marks: z
      .array(z.strictObject({ when: formula, colour: z.enum(OPTION_COLOURS), word: z.string().trim().max(60) }))
      .max(MOST_OF_VIEW.marks)
      .readonly(),
    audience: sharedAudience.nullable(),
  }),
);
const says = z.array(z.object({ part: z.enum(VIEW_PARTS), words }));
const findings = z.array(z.object({ at: z.string(), message: words }));
/** What a column adds up to, by its place; empty where there is nothing. */
const sums = z.array(z.object({ column: z.int(), sum: words }));
const identified = z.strictObject({ id: z.string().max(64) });

/** Views: what is looked at, how it is put together and in order, for whom. */
export const savedViewRoutes = routesOf(savedViewHeads, {
  views: {
    says: 'The views of the caller and those that are for them, and the registers there are to look at.',
    answer: z.object({
      views: z.array(
        z.object({
          ...{ id: z.string(), name: z.string(), says },
          /** Whose it is; empty: the caller’s own. */
          by: z.string(),
        }),
      ),
      registers: z.array(named),
    }),
  },
  nameable: {
    says: 'What a view of some registers can name, as the caller may: fields, and what conditions on them compare with.',
    query: z.strictObject({ of: z.string().max(600).default(''), find: z.string().max(100).default('') }),
    answer: z.object({
      fields: z.array(field).readonly(),
      /** Facts by which nothing can be asked for, put together or in order: they would tell of a field the caller may not read. */
      closed: z.array(z.enum(VIEW_FACTS)),
      stages: z.array(labelled),
      forms: z.array(labelled),
      vocabularies: z.array(vocabulary).readonly(),
      ...whoFound,
    }),
  },
  lookThrough: {
    says: 'A page of what the caller sees through a view, kept or not, with its groups and sums.',
    body: z.strictObject({
      view: viewDesign,
      after: z.string().max(4_000).optional(),
      /** Rows of a page, at most. */
      most: z.int().min(1).max(200).default(100),
    }),
    answer: z.object({
      rows: z.array(
        ledgerRow.extend({
          arrived: moment,
          finished: moment.nullable(),
          /** The fields among its columns, in their order. */
          cells: revealed<readonly z.output<typeof words>[]>(z.array(words)),
          /** The id of the group it is in. */
          group: z.string(),
          /** The place of the mark it has. */
          mark: z.int().nullable(),
        }),
      ),
      /** In the order of the rows; none where there are too many rows to put them together. */
      groups: z.array(z.object({ id: z.string(), path: z.array(words), count: z.int(), sums })),
      moreGroups: z.boolean(),
      sums,
      /** How many there are; `more`: at least so many. */
      total: z.int(),
      more: z.boolean(),
      /** Whether all were looked at: of a condition that the database can’t decide, only the newest are. */
      isAll: z.boolean(),
      next: z.string().nullable(),
      ...{ findings, says },
    }),
  },
  makeView: {
    says: 'Keeps a view.',
    body: z.strictObject({ view: viewDesign }),
    answer: z.object({ id: z.string() }),
  },
  view: {
    says: 'A view that the caller finds.',
    params: identified,
    answer: z.object({
      ...{ id: z.string(), version: z.int(), view: viewDesign },
      /** Whose it is, and whether the caller may change it. */
      ...{ by: z.string(), mine: z.boolean(), changes: z.boolean() },
      /** What the groups and people it is for are called. */
      names: z.record(z.string(), z.string()),
    }),
  },
  changeView: {
    says: 'Changes a view, at once for everybody who finds it.',
    params: identified,
    body: z.strictObject({ view: viewDesign }),
    answer: versioned,
  },
  removeView: {
    says: 'Takes a view away, or puts it back.',
    params: identified,
    body: z.strictObject({ removed: z.boolean() }),
    answer: z.object({ id: z.string() }),
  },
});
