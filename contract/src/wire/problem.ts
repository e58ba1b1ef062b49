import { z } from 'zod';
import { refusal, words } from './words.ts';

/** An RFC 9457 problem document, with Tolvek's list of fields where fields are involved. */
export const problemDocument = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string(),
    /** The same as codes, for whoever has the catalogues. */
    said: refusal,
    problems: z
      .array(
        z.object({
          field: z.string(),
          message: words,
          fix: words,
          why: z.literal('unanswered').optional(),
          place: z.object({ row: z.int(), column: z.string() }).optional(),
        }),
      )
      .optional(),
  })
  .meta({ id: 'Problem' });
export type ProblemDocument = z.infer<typeof problemDocument>;
