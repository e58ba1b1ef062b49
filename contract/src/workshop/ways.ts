import { z } from 'zod';
import { allowance } from '../form/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { done, fieldKey, keyed } from '../wire/shapes.ts';
import { wayHeads } from './heads.ts';

/** Ways that values take to people who may not read them otherwise. */
export const wayRoutes = routesOf(wayHeads, {
  allowWay: {
    says: 'Allows one way of a value on purpose, by somebody who may read it. It is in force at once.',
    params: keyed,
    body: z.strictObject({ ...allowance.shape, reason: z.string().trim().max(500) }),
    answer: z.object({ id: z.string() }),
  },
  endWay: {
    says: 'Ends what was allowed: from then on it is withheld again from whoever may not read it.',
    params: z.strictObject({ key: z.string().max(64), id: z.string().max(64) }),
    answer: done,
  },
  protectAlike: {
    says: 'Lets the rules of the access plan that protect one field protect another as well. In force at once.',
    params: keyed,
    body: z.strictObject({ source: z.string().min(1).max(64), field: z.string().min(1).max(64) }),
    answer: done,
  },
  placeFields: {
    says: 'Gives fields their place in the access plan: its rules, and what holds where none speaks, count for them from then on.',
    params: keyed,
    body: z.strictObject({ fields: z.array(fieldKey).min(1).max(500) }),
    answer: done,
  },
});
