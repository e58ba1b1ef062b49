import type { Revealed, VisibleChange, VisibleReason, VisibleValues } from '@tolvek/core/access';
import { isOfEveryObject } from '@tolvek/core/own';
import type { Words } from '@tolvek/words';
import { z } from 'zod';
import { words } from './words.ts';

/**
 * A value that only core's `reveal` can make; the schema describes its shape, the type asks for the
 * brand.
 */
export const revealed = <T>(shape: z.ZodType): z.ZodType<Revealed<T>> => shape as unknown as z.ZodType<Revealed<T>>;
export const key = z
  .string()
  .regex(/^[a-z][a-z0-9_-]{0,63}$/, 'say wire:keySigns')
  .refine((text) => !isOfEveryObject(text), 'say wire:reservedName');
/** Names in expressions: no hyphen, which would read as minus. */
export const fieldKey = z
  .string()
  .regex(/^[a-z][a-z0-9_]{0,63}$/, 'say wire:fieldKeySigns')
  .refine((text) => !isOfEveryObject(text), 'say wire:reservedName');
/** A field, or a column of lines: `items.price`. */
export const partKey = z.union([
  fieldKey,
  z.string().regex(/^[a-z][a-z0-9_]{0,63}\.[a-z][a-z0-9_]{0,63}$/, 'say wire:fieldKeySigns'),
]);
/** Something that keeps the application from doing all of its work. */
export const trouble = z.object({
  what: z.enum(['locked', 'full', 'disk', 'job']),
  words,
  since: z.iso.datetime(),
});
export const moment = z.iso.datetime();
export const day = z.iso.date();
export const short = z.string().max(200);
export const long = z.string().max(5_000);
const money = z.strictObject({ minor: z.int(), currency: z.string().length(3) });
const single = z.union([z.string(), z.number(), z.boolean(), money]);
export const fieldValue = z.union([
  single,
  z.array(z.string()).readonly(),
  z.array(z.record(z.string(), single)).readonly(),
]);
const rawSingle = z.union([z.string().max(20_000), z.number(), z.boolean(), z.null()]);
/** Rows an answer may have before anybody reads it; what a field allows is far less. */
const MOST_SENT = 1_000;
export const rawAnswer = z.union([
  rawSingle,
  z.array(z.string().max(200)).max(MOST_SENT).readonly(),
  z
    .array(z.record(z.string().max(64), rawSingle))
    .max(MOST_SENT)
    .readonly(),
]);
export const rawAnswers = z.record(z.string().max(64), rawAnswer);
export const formula = z.string().max(4_000);
export const groupKeys = z.array(key).max(100).readonly();
const reason: z.ZodType = z
  .lazy(() => z.object({ words, result: z.boolean().nullable(), parts: z.array(reason) }))
  .meta({ id: 'Reason' });
export const visibleReason = revealed<VisibleReason>(reason);
export const visibleValues = revealed<VisibleValues>(
  z.object({
    fields: z.array(
      z.object({
        key: z.string(),
        label: z.string(),
        value: fieldValue.nullable(),
        shown: words,
        writable: z.boolean(),
        source: z.enum(['asked', 'desk-only', 'computed', 'given', 'carried']),
        /** Why staff who may change others can’t change this one. */
        why: words.optional(),
        /** What may be done with lines, where not the same may be done with all of their columns: those that may be read. */
        lines: z
          .object({
            columns: z.array(z.object({ key: z.string(), writable: z.boolean(), why: words.optional() })),
            ...{ mayAdd: z.boolean(), mayRemove: z.boolean() },
          })
          .optional(),
      }),
    ),
    withheld: z.array(z.object({ label: z.string(), rule: words })),
  }),
);
export const visibleSubject = revealed<Words>(words);
export const visibleTexts = revealed<readonly Words[]>(z.array(words));
export const visibleChanges = revealed<readonly VisibleChange[]>(
  z.array(z.object({ label: z.string(), before: words, after: words })),
);
export const name = z.string().trim().max(200);
export const keys = z.array(z.string().max(64)).max(100).readonly();
export const text = z.string().trim().min(1).max(5_000);
export const numbered = z.strictObject({ number: z.string().max(20) });
export const withToken = z.strictObject({ token: z.string().max(100) });
/** Something by its key, and what people read. */
/** Something by its id, and as it is called. */
export const called = z.object({ id: z.string(), name: z.string() });
export const named = z.object({ key: z.string(), name: z.string() });
export const labelled = z.object({ key: z.string(), label: z.string() });
export const keyed = z.strictObject({ key: z.string().max(64) });
export const slugged = z.strictObject({ slug: z.string().max(64) });
/** The letters before numbers. */
export const prefix = z.string().regex(/^[A-Z]{2,5}$/, 'say wire:prefixSigns');
export const done = z.object({ done: z.literal(true) });
export const versioned = z.object({ version: z.int() });

/** `HH:MM` on the clock of the desk. */
export const clockTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'say wire:clockTime');
/** Days of the week from 1 (Monday, ISO 8601) to 7. */
export const weekDays = z.array(z.int().min(1).max(7)).max(7);
