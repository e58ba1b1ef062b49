import { BEHIND, SERVED_BY } from '@tolvek/core/service';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { day, key, moment, named, visibleSubject } from '../wire/shapes.ts';
import { length, words } from '../wire/words.ts';
import { serviceHeads } from './heads.ts';

const asked = z.strictObject({
  /** The first and the last day, at the desk. */
  ...{ from: day, to: day },
  /** The register, by key; empty: all of them. */
  of: z.union([key, z.literal('')]).default(''),
  by: z.enum(SERVED_BY).default('form'),
});
/** Half of them took at most so long, nine of ten at most so long; working time. */
const spread = z.object({ median: length, most: length }).nullable();
const line = z.object({
  /** What they have in common, as it is kept; empty: nothing. */
  ...{ key: z.string(), label: words },
  ...{ came: z.int(), went: z.int(), open: z.int(), inTime: z.int(), late: z.int() },
  ...{ first: spread, finish: spread },
  paused: length.nullable(),
  /** Of one register: the median in each stage, and how many were in it. */
  stages: z.array(z.object({ label: z.string(), median: length, count: z.int() })),
});

/** What is told of how requests were served. */
export const timesTold = {
  all: line,
  lines: z.array(line),
  /** Requests of which the caller may not know whether they were in time, or by which row they went. */
  untold: z.int(),
  /** Requests that are left out, as the caller may not read their history. */
  unread: z.int(),
  /** Whether all were looked at: of too many, only the newest are. */
  isAll: z.boolean(),
};

/** Service times: how long requests took, in working time, and what came and went. */
export const serviceRoutes = routesOf(serviceHeads, {
  serviceTimes: {
    says: 'How long the requests took that the caller reads with their history, in working time without pauses, in a stretch of days.',
    query: asked,
    answer: z.object({ ...timesTold, registers: z.array(named) }),
  },
  servedRows: {
    says: 'The requests behind a figure of the service times, the latest first.',
    query: asked.extend({
      /** The key of the line; left out for all lines. */
      line: z.string().max(200).optional(),
      figure: z.enum(BEHIND),
    }),
    answer: z.object({
      rows: z.array(
        z.object({
          ...{ number: z.string(), subject: visibleSubject, arrived: moment, finished: moment.nullable() },
          ...{ first: length.nullable(), finish: length.nullable(), paused: length },
          /** Null where nothing says so, or the caller may not know. */
          inTime: z.boolean().nullable(),
        }),
      ),
      total: z.int(),
    }),
  },
});
