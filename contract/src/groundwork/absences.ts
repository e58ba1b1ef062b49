import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { day, done } from '../wire/shapes.ts';
import { absenceHeads } from './heads.ts';

const withAbsence = z.strictObject({ id: z.string().max(64), absence: z.string().max(64) });
const newAbsence = z.strictObject({
  from: day,
  /** The last day; null until it is ended. */
  until: day.nullable(),
  /** The id of whoever decides meanwhile; null for nobody. */
  substitute: z.string().max(64).nullable(),
});

/** When people are away, and who decides in their place. */
export const absenceRoutes = routesOf(absenceHeads, {
  addAbsence: {
    says: 'Says that somebody of the staff is away, and who decides in their place.',
    params: z.strictObject({ id: z.string().max(64) }),
    body: newAbsence,
    answer: z.object({ id: z.string() }),
  },
  endAbsence: {
    says: 'Ends an absence before today; one that has not begun is taken back.',
    params: withAbsence,
    answer: done,
  },
  addOwnAbsence: {
    says: 'Says that one is away oneself, and who decides meanwhile.',
    body: newAbsence,
    answer: z.object({ id: z.string() }),
  },
  endOwnAbsence: {
    says: 'Ends an absence of one’s own.',
    params: z.strictObject({ absence: z.string().max(64) }),
    answer: done,
  },
  colleagues: {
    says: 'Active staff by part of a name or an address, twenty at most; to choose one of.',
    query: z.strictObject({ find: z.string().max(200).optional() }),
    answer: z.object({
      people: z.array(
        z.object({
          ...{ id: z.string(), name: z.string(), email: z.string(), away: z.boolean() },
          portrait: z.string().nullable(),
        }),
      ),
    }),
  },
});
