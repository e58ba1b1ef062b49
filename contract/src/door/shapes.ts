import type { DoorDesign } from '@tolvek/core/door';
import { z } from 'zod';
import { audience } from '../people/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { key } from '../wire/shapes.ts';

/** Epoch ms. */
const moment = z.int().min(0).nullable();

/** A door as its design says. */
export const door = exactly<DoorDesign>()(
  z.strictObject({
    name: z.string().trim().max(200),
    audience,
    proof: z.enum(['sign-in', 'confirmed-address']),
    unnamed: z.literal(true).optional(),
    open: z.boolean(),
    opensAt: moment,
    closesAt: moment,
    limits: z
      .array(
        z.strictObject({
          id: key,
          most: z.int().min(1).max(1_000_000),
          of: z.enum(['all', 'each']),
          /** So many days are looked back, today among them; null: to the beginning. */
          days: z.int().min(1).max(3_660).nullable(),
        }),
      )
      .max(10)
      .readonly(),
    closedMessage: z.string().max(500),
  }),
);
