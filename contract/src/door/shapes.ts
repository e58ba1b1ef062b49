import { AGAIN, type Consent, type DoorDesign, PROVING } from '@tolvek/core/door';
import { z } from 'zod';
import { doorAudience } from '../people/shapes.ts';
import { translations } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { fieldKey, key } from '../wire/shapes.ts';

/** Epoch ms. */
const moment = z.int().min(0).nullable();

/** What somebody agrees to who asks; the server counts its versions. */
export const consent = exactly<Consent>()(z.strictObject({ text: z.string().max(5_000), version: z.int().min(0) }));

/** A door as its design says. */
export const door = exactly<DoorDesign>()(
  z.strictObject({
    name: z.string().trim().max(200),
    audience: doorAudience,
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
          /** What came in this week, month or year; `days` is null then. */
          period: z.enum(['week', 'month', 'year']).optional(),
          /** Only what is not finished counts. */
          unfinished: z.literal(true).optional(),
        }),
      )
      .max(10)
      .readonly(),
    closedMessage: z.string().max(500),
    says: z
      .strictObject({
        ...{ early: z.string().max(500).optional(), full: z.string().max(500).optional() },
        others: z.string().max(500).optional(),
      })
      .optional(),
    finishing: z.int().min(0).max(1_440).optional(),
    showsPlaces: z.literal(true).optional(),
    waits: z.int().min(1).max(720).optional(),
    instead: key.optional(),
    confirmation: z.string().max(2_000).optional(),
    consent: consent.optional(),
    prefills: z.array(fieldKey).max(100).readonly().optional(),
    embeds: z.array(z.string().max(300)).max(20).readonly().optional(),
    whose: fieldKey.optional(),
    proves: z.enum(PROVING).optional(),
    again: z.array(z.enum(AGAIN)).min(1).max(AGAIN.length).readonly().optional(),
    follows: z.enum(['device', 'each-time']).optional(),
    changes: z.enum(['never', 'worked-on', 'finished']).optional(),
    withdraws: z.enum(['worked-on', 'finished']).optional(),
    slowsRobots: z.literal(true).optional(),
    onlySent: z.literal(true).optional(),
    translations: translations.optional(),
  }),
);
