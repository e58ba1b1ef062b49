import { ITSELF, type MailingDesign } from '@tolvek/core/mailing';
import { z } from 'zod';
import { sharedAudience } from '../people/shapes.ts';
import { translations } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { fieldKey, formula, key } from '../wire/shapes.ts';

/** A mailing as its design says. Its audience: groups and people. */
export const mailing = exactly<MailingDesign>()(
  z.strictObject({
    name: z.string().trim().max(200),
    door: z.string().max(40),
    to: z.union([
      z.strictObject({ audience: sharedAudience }),
      z.strictObject({ named: z.union([fieldKey, z.enum(['~requester', '~handler'])]) }),
    ]),
    about: z.discriminatedUnion('is', [
      z.strictObject({ is: z.literal('nothing') }),
      z.strictObject({ is: z.literal('each-other'), field: fieldKey }),
      z.strictObject({
        ...{ is: z.literal('requests'), register: key, field: z.union([fieldKey, z.literal(ITSELF)]) },
        stages: z.array(key).max(50).readonly(),
        when: formula,
      }),
    ]),
    when: z.discriminatedUnion('is', [
      z.strictObject({ is: z.literal('by-hand') }),
      z.strictObject({ is: z.literal('every'), period: z.enum(['week', 'month', 'year']) }),
      z.strictObject({ is: z.literal('reached'), days: z.int().min(0).max(3_660) }),
    ]),
    dueIn: z.int().min(0).max(400).nullable(),
    reminders: z
      .array(z.strictObject({ days: z.int().min(0).max(365), side: z.enum(['before', 'after']) }))
      .max(10)
      .readonly(),
    passesOn: z.literal(true).optional(),
    text: z.string().max(2_000),
    translations: translations.optional(),
    going: z.boolean(),
    counts: z.enum(['latest', 'mean']).optional(),
  }),
);

/** How an owed form stands; `late`: open, and past its day. */
export const owedState = z.enum(['open', 'late', 'done', 'passed', 'ended']);
