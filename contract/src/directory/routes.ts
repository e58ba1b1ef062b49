import { DIRECTORY_ATTRIBUTES } from '@tolvek/core/register';
import { z } from 'zod';
import { bearer, groundLine } from '../groundwork/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { done } from '../wire/shapes.ts';
import { directoryHeads } from './heads.ts';

const somebody = z.object({ id: z.string(), name: z.string() });

/** A directory that keeps people in step. */
export const directoryRoutes = routesOf(directoryHeads, {
  directory: {
    says: 'How a directory keeps people and groups in step: its address and tokens, what it keeps, and what needs attention.',
    answer: z.object({
      /** Where directories speak SCIM 2.0 to this desk. */
      address: z.string(),
      tokens: z.array(bearer),
      users: z.int(),
      groups: z.array(z.object({ key: z.string(), name: z.string(), members: z.int() })),
      /** Fields of profiles that it fills in, with the people of whom it says what a field can’t hold. */
      fields: z.array(
        z.object({
          ...{ key: z.string(), label: z.string(), from: z.enum(DIRECTORY_ATTRIBUTES) },
          unread: z.array(somebody.extend({ said: z.string() })),
        }),
      ),
      /** People who left and still have open work. */
      left: z.array(somebody.extend({ openWork: z.int() })),
      mayGiveTokens: z.boolean(),
      history: z.array(groundLine),
    }),
  },
  addDirectoryToken: {
    says: 'Makes a token for a directory. It is told this once.',
    body: z.strictObject({
      name: z.string().trim().min(1).max(80),
      /** How many days it works; null until it is ended. */
      days: z.int().min(1).max(3_650).nullable(),
    }),
    answer: z.object({ id: z.string(), token: z.string() }),
  },
  endDirectoryToken: {
    says: 'Ends a token of a directory at once.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: done,
  },
  fillFromDirectory: {
    says: 'Fills in the fields of profiles anew from what the directory said last.',
    answer: z.object({ changed: z.int() }),
  },
});
