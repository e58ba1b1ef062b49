import { OPTION_COLOURS } from '@tolvek/core/register';
import { CELLS, MEASURES, MOST_OF_VIEW, STRETCHES, VIEW_FACTS, VIEW_PARTS, type ViewDesign } from '@tolvek/core/view';
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
export const subject = z.union([z.enum(VIEW_FACTS), fieldKey]);
/** How a view is looked at. */
const board = z.strictObject({ is: z.literal('board'), by: subject, lanes: subject.nullable() });
const calendar = z.strictObject({
  ...{ is: z.literal('calendar'), from: subject, to: subject.nullable(), lines: subject.nullable() },
});
export const chartMeasure = z.strictObject({ is: z.enum(MEASURES), of: subject.nullable() });
export const tableShape = z.strictObject({ is: z.literal('table') });
export const chartShape = z.strictObject({
  ...{ is: z.literal('chart'), as: z.enum(['bars', 'line']), by: subject, each: z.enum(STRETCHES) },
  ...{ parts: subject.nullable(), measure: chartMeasure },
});
const matrix = z.strictObject({
  ...{ is: z.literal('matrix'), down: subject, across: subject },
  cell: z.strictObject({ is: z.enum(CELLS), of: subject.nullable() }),
  wanted: z.strictObject({ figure: z.number(), cells: z.int().min(1).max(1_000) }).nullable(),
  fresh: z.strictObject({ of: subject, days: z.int().min(1).max(36_500) }).nullable(),
});
const gallery = z.strictObject({ is: z.literal('gallery'), picture: subject });
const totals = z.strictObject({
  ...{ is: z.literal('totals'), by: subject, each: z.enum(STRETCHES), parts: subject.nullable() },
  totals: z
    .array(
      z.discriminatedUnion('is', [
        chartMeasure,
        z.strictObject({ is: z.literal('rate'), of: subject, per: subject }),
        z.strictObject({ is: z.literal('share'), when: formula, word: z.string().trim().max(60) }),
      ]),
    )
    .max(MOST_OF_VIEW.totals)
    .readonly(),
});
const shape = z.discriminatedUnion('is', [tableShape, board, calendar, chartShape, matrix, gallery, totals]);
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
    shapes: z.array(shape).max(MOST_OF_VIEW.shapes).readonly(),
    audience: sharedAudience.nullable(),
  }),
);
const says = z.array(z.object({ part: z.enum(VIEW_PARTS), words }));
const findings = z.array(z.object({ at: z.string(), message: words }));
/** What stands in a row of a view, or on a slip of a board. */
const viewRow = ledgerRow.extend({
  arrived: moment,
  finished: moment.nullable(),
  /** The fields among its columns, in their order. */
  cells: revealed<readonly z.output<typeof words>[]>(z.array(words)),
  /** The place of the mark it has. */
  mark: z.int().nullable(),
});
/** The same in a table or a gallery. */
const placedRow = viewRow.extend({
  /** The id of the group it is in. */
  group: z.string(),
  /** Where it stands in its group: another one when it stands elsewhere. */
  stands: z.string(),
  /** The id of its picture; null where there is none, or none was asked for. */
  picture: revealed<string | null>(z.string().nullable()),
});
/** A value as it is stored; null for none. */
const value = z.union([z.string(), z.number()]).nullable();
/** What a column adds up to, by its place; empty where there is nothing. */
const sums = z.array(z.object({ column: z.int(), sum: words }));
/** A value that makes a column or a lane, with how many have it and what the columns of the view add up to. */
/** How many requests are in a view, its groups, and what its columns add up to. */
const summary = {
  /** In the order of the rows; none where there are too many rows to put them together. */
  groups: z.array(z.object({ id: z.string(), path: z.array(words), count: z.int(), sums })),
  moreGroups: z.boolean(),
  sums,
  /** How many there are; `more`: at least so many. */
  total: z.int(),
  more: z.boolean(),
};
const valued = () => z.object({ value, label: words, count: z.int(), sums });
/** What stands in a chart. */
export const charted = {
  /** In their order; of time, all stretches from the first to the last, by their first day. */
  steps: z.array(z.object({ value, label: words })),
  parts: z.array(z.object({ value, label: words })),
  /** By the places of its step and its part: what is measured, how it is said, and of how many rows. */
  points: z.array(
    z.object({ step: z.int(), part: z.int(), figure: z.number().nullable(), said: words, count: z.int() }),
  ),
  /** Rows that hold nothing of what it goes by, where that is time. */
  without: z.int(),
};
/** As what the rows of a view are taken out. */
const OUT = ['csv', 'json', 'xlsx', 'ics'] as const;
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
      /** Whether the caller may take something out of them. */
      exports: z.boolean(),
      stages: z.array(labelled),
      forms: z.array(labelled),
      vocabularies: z.array(vocabulary).readonly(),
      ...whoFound,
    }),
  },
  lookThrough: {
    says: 'A page of what the caller sees through a view, kept or not, with its groups and sums on the first one.',
    body: z.strictObject({
      view: viewDesign,
      after: z.string().max(4_000).optional(),
      /** Rows of a page, at most. */
      most: z.int().min(1).max(200).default(100),
      /** A field for pictures, of which each row tells the first. */
      picture: subject.optional(),
    }),
    answer: z.object({
      rows: z.array(placedRow),
      /** Of the first page; none of it on the others. */
      ...summary,
      /** Whether all were looked at: of a condition that the database can’t decide, only the newest are. */
      isAll: z.boolean(),
      next: z.string().nullable(),
      ...{ findings, says },
    }),
  },
  lookAgain: {
    says: 'Some requests as they stand in a view by now, by their numbers: those of them that are in it.',
    body: z.strictObject({
      view: viewDesign,
      only: z.array(z.string().max(40)).max(100).readonly(),
      /** A field for pictures, of which each row tells the first. */
      picture: subject.optional(),
      /** The `next` of the last page that is there. */
      until: z.string().max(4_000).optional(),
    }),
    answer: z.object({
      rows: z.array(placedRow),
      /** The numbers of those that come after that. */
      later: z.array(z.string()),
    }),
  },
  addUpView: {
    says: 'How many requests the caller sees through a view, its groups, and what its columns add up to, however many there are.',
    body: z.strictObject({ view: viewDesign }),
    answer: z.object(summary),
  },
  lookAtBoard: {
    says: 'What the caller sees of a view as a board: a column for each value of one thing, and the first slips in each place.',
    body: z.strictObject({ view: viewDesign, shape: board }),
    answer: z.object({
      columns: z.array(valued()),
      /** None where it has no lanes. */
      lanes: z.array(valued()),
      /** Where something stands: the places of its column and its lane, how many there are, and the first of them. */
      places: z.array(z.object({ column: z.int(), lane: z.int(), count: z.int(), rows: z.array(viewRow) })),
      /** How many there are; `more`: too many for a board. */
      total: z.int(),
      more: z.boolean(),
      isAll: z.boolean(),
      ...{ findings, says },
    }),
  },
  lookAtCalendar: {
    says: 'What the caller sees of a view in some days: what begins, ends or lasts there, and what stands on no day.',
    body: z.strictObject({ view: viewDesign, shape: calendar, first: z.iso.date(), last: z.iso.date() }),
    answer: z.object({
      bars: z.array(
        viewRow.extend({
          /** Days (ISO 8601), or moments as the clock of the desk shows them. */
          begins: z.string(),
          ends: z.string().nullable(),
          /** The place of its line; -1 where there are none. */
          line: z.int(),
        }),
      ),
      lines: z.array(z.object({ value, label: words })),
      undated: z.object({ rows: z.array(viewRow), count: z.int() }),
      /** Whether there are more than are shown. */
      more: z.boolean(),
      isAll: z.boolean(),
      ...{ findings, says },
    }),
  },
  lookAtChart: {
    says: 'What the caller sees of a view as a chart: what is measured, for each value of a thing or each stretch of time.',
    body: z.strictObject({ view: viewDesign, shape: chartShape }),
    answer: z.object({
      ...charted,
      total: z.int(),
      /** Whether there are too many to measure. */
      more: z.boolean(),
      isAll: z.boolean(),
      ...{ findings, says },
    }),
  },
  lookAtMatrix: {
    says: 'What the caller sees of a view as a matrix: two things across and down, and what is told where they meet.',
    body: z.strictObject({ view: viewDesign, shape: matrix }),
    answer: z.object({
      down: z.array(z.object({ value, label: words })),
      /** `enough`: in how many cells the figure is as high as is wanted; null where nothing is. */
      across: z.array(z.object({ value, label: words, enough: z.int().nullable() })),
      cells: z.array(
        z.object({
          ...{ down: z.int(), across: z.int(), count: z.int(), figure: z.number().nullable(), said: words },
          /** The number of the row, where one alone stands there. */
          number: z.string().nullable(),
          /** The day that is too long ago; null where it is not, or nothing says so. */
          stale: z.iso.date().nullable(),
        }),
      ),
      total: z.int(),
      more: z.boolean(),
      isAll: z.boolean(),
      ...{ findings, says },
    }),
  },
  lookAtTotals: {
    says: 'Several totals of what the caller sees through a view, for each value of a thing or each stretch of time.',
    body: z.strictObject({ view: viewDesign, shape: totals }),
    answer: z.object({
      /** In their order; of time, all stretches from the first to the last, by their first day. */
      steps: z.array(z.object({ value, label: words })),
      parts: z.array(z.object({ value, label: words })),
      /**
       * By the places of its step and its part, in their order: how many rows there are, and each total as a number and in
       * words. Without a part: all of a step; without a step: all there is. A step of time that is -1 has no day.
       */
      lines: z.array(
        z.object({
          ...{ step: z.int().nullable(), part: z.int().nullable(), count: z.int() },
          totals: z.array(z.object({ figure: z.number().nullable(), said: words })),
        }),
      ),
      total: z.int(),
      /** Whether there are too many to add up. */
      more: z.boolean(),
      isAll: z.boolean(),
      ...{ findings, says },
    }),
  },
  takeOutView: {
    says: 'All rows of a view as a file, or some of them, as far as the caller may take them out: comma-separated values (RFC 4180), JSON with what fields hold, or JSON from which a page makes a spreadsheet or a calendar.',
    body: z.strictObject({
      ...{ view: viewDesign, as: z.enum(OUT) },
      /** Only these among them, by their numbers. */
      only: z.array(z.string().max(40)).max(1_000).optional(),
    }),
    answer: z.string(),
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
