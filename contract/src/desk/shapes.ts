import { z } from 'zod';

export const decision = z.strictObject({
  verdict: z.enum(['approve', 'refuse'], 'say wire:verdictMissing'),
  comment: z.string().max(5_000),
  /** Stood for the request when it was read. */
  seen: z.string({ error: 'say wire:seenMissing' }).max(64),
});
