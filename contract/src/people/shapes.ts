import type { Audience } from '@tolvek/core/people';
import { z } from 'zod';
import { exactly } from '../wire/exactly.ts';
import { key } from '../wire/shapes.ts';

export const audience = exactly<Audience>()(
  z.strictObject({
    in: z.union([
      z.strictObject({ everyone: z.literal(true) }),
      z.strictObject({ anyOf: z.array(key).max(50).readonly() }),
      z.strictObject({ allOf: z.array(key).max(50).readonly() }),
    ]),
    outOf: z.array(key).max(50).readonly(),
    requester: z.enum(['in', 'out']).optional(),
  }),
);
export const person = z.object({ id: z.string(), name: z.string() });
export const group = z.object({ key: z.string(), name: z.string(), isTeam: z.boolean(), members: z.int() });
/** A language of pages and emails. */
export const language = z.enum(['en', 'de']);
