import { BUDGETS } from '@tolvek/core/budget';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done, keyed, moment, visibleChanges, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { manyHeads } from './heads.ts';

/** Rows taken in at once. */
export const MOST_IMPORTED = BUDGETS.sheet.rows;

/** The number that a row got or would get, or what is wrong with it. */
const toldRow = z.object({
  number: z.string().nullable(),
  problems: z.array(z.object({ field: z.string(), message: words, fix: words })),
});

/** Work over many requests at once, and how far it is. */
export const manyRoutes = routesOf(manyHeads, {
  job: {
    says: 'How far long work has come, for whoever began it.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: z.object({
      state: z.enum(['waiting', 'running', 'done', 'failed', 'stopped']),
      looked: z.int(),
      of: z.int().nullable(),
      /** Requests that changed so far, of what whoever began it may read. */
      changed: z.int(),
      /** What has become of the rows of a sheet so far; null for other work. */
      rows: z.array(toldRow).nullable(),
    }),
  },
  stopJob: {
    says: 'Stops long work: what it did stays done, the rest is left as it is.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: done,
  },
  overExisting: {
    says: 'What a rule of the draft would do to the requests that are there, unfinished or all; with what stood for that dry run, does just that.',
    params: z.strictObject({ key: z.string().max(64), rule: z.string().max(64) }),
    body: z.strictObject({
      /** `shown` of the dry run that is to be done; null for a dry run. */
      shown: z.string().max(64).nullable(),
      among: z.enum(['unfinished', 'all']).default('unfinished'),
    }),
    answer: z.object({
      looked: z.int(),
      changed: z.int(),
      /** Left as they are, as the rule refuses them. */
      refused: z.int(),
      applied: z.boolean(),
      /** The work that goes on; null when it has ended. */
      job: z.string().nullable(),
      /** Stands for the dry run; another one when the rule or a request has changed. */
      shown: z.string(),
      /** The last run of this rule that can be taken back. */
      last: z.object({ run: z.string(), at: moment, changed: z.int() }).nullable(),
      requests: z.array(
        z.object({
          number: z.string(),
          subject: visibleSubject,
          refused: words.nullable(),
          changes: visibleChanges,
        }),
      ),
    }),
  },
  takeRunBack: {
    says: 'Takes back what a run of a rule changed, as far as nobody changed it since.',
    params: z.strictObject({ key: z.string().max(64), run: z.string().max(64) }),
    answer: z.object({
      back: z.int(),
      /** Requests of which something was changed since, and stays. */
      left: z.int(),
      /** The work that goes on; null when it has ended. */
      job: z.string().nullable(),
    }),
  },
  takeInRows: {
    says: 'Takes rows of a sheet in as requests, by the form’s rules, routing and deadlines, and without letters. Without apply it is a dry run: everything is looked at, nothing is kept. What takes longer than a moment goes on by itself: `job` tells how far it is.',
    params: keyed,
    body: z.strictObject({
      rows: z
        .array(
          z.strictObject({
            cells: z.record(z.string().max(64), z.string().max(20_000)),
            requester: z.string().max(254),
          }),
        )
        .min(1)
        .max(MOST_IMPORTED),
      apply: z.boolean(),
    }),
    answer: z.object({
      applied: z.boolean(),
      good: z.int(),
      bad: z.int(),
      /** By the place of the row. */
      rows: z.array(toldRow),
      /** The work that goes on; null when it has ended. */
      job: z.string().nullable(),
    }),
  },
});
