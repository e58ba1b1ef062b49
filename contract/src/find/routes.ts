import { z } from 'zod';
import { ledgerRow } from '../view/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { findHeads } from './heads.ts';

export const findRoutes = routesOf(findHeads, {
  find: {
    says: 'Requests of the desk that hold some words, numbers or days in what the caller may read there, the newest first, and people, views and forms that are called so.',
    body: z.strictObject({ text: z.string().max(200) }),
    answer: z.object({
      requests: z.array(
        ledgerRow.extend({
          /** Found by what is nearly written so, or by a day near the one that is meant. */
          nearly: z.boolean(),
          /** Where it holds what was looked for: in a field, a message, or by who asked, for whom, and who handles it. */
          places: z.array(
            z.object({
              is: z.enum(['field', 'message', 'requester', 'behalf', 'handler']),
              label: words.nullable(),
              value: visibleSubject,
            }),
          ),
        }),
      ),
      /** Whether there may be more of them. */
      more: z.boolean(),
      people: z.array(z.object({ id: z.string(), name: z.string() })),
      /** The caller’s views, and forms that they build, which are called so. */
      views: z.array(z.object({ id: z.string(), name: z.string() })),
      forms: z.array(z.object({ key: z.string(), title: z.string() })),
      /** The words that were met in these places: as they were typed, or nearly so. */
      words: z.array(z.string()),
      /** How many requests can’t be found by their words yet. */
      behind: z.int(),
    }),
  },
});
