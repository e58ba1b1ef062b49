import { z } from 'zod';

/** An RFC 9457 problem document, with Tolvek's list of fields where fields are involved. */
export const problemDocument = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string(),
    problems: z
      .array(
        z.object({
          field: z.string(),
          message: z.string(),
          fix: z.string(),
          why: z.literal('unanswered').optional(),
          place: z.object({ row: z.int(), column: z.string() }).optional(),
        }),
      )
      .optional(),
  })
  .meta({ id: 'Problem' });
export type ProblemDocument = z.infer<typeof problemDocument>;
