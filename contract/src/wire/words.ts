import { type Param, type Refusal, type Said, WAY_NAMES, type Words } from '@tolvek/words';
import { z } from 'zod';

/** A length of working time. */
export const length = z.union([z.strictObject({ days: z.number() }), z.strictObject({ minutes: z.number() })]);
const money = z.strictObject({ amount: z.number(), currency: z.string() });
const whole = z.int().optional();
const stretch = z.strictObject({ year: whole, month: whole, day: whole, hour: whole, minute: whole, second: whole });
const decimal = z.strictObject({ value: z.number(), decimals: z.int() });

/** What can stand in a place of a text. */
const param: z.ZodType<Param> = z.lazy(() =>
  z.union([z.string(), z.number(), said, length, money, decimal, stretch, z.array(words)]),
);

/** A text of ours as a code: which one, and what stands in its places. It is made into words where it is read. */
const said: z.ZodType<Said> = z
  .strictObject({ say: z.string(), with: z.record(z.string(), param).optional() })
  .meta({ id: 'Said' });

/** What people read: a text of ours as a code, or words that a person wrote. */
export const words: z.ZodType<Words> = z.union([z.string(), said]).meta({ id: 'Words' });

/** What somebody is told whose call was refused. */
export const refusal = z.object({
  happened: words,
  saved: words,
  now: words,
  way: z.enum(WAY_NAMES).optional(),
}) as z.ZodType<Refusal>;
