import { z } from 'zod';

/** Requests that are changed in one call at most. */
export const MOST_AT_ONCE = 200;

/** `return`: whoever asked has to say more first; the comment is what they are asked. */
export const decision = z.strictObject({
  verdict: z.enum(['approve', 'refuse', 'return'], 'say wire:verdictMissing'),
  comment: z.string().max(5_000),
  /** Stood for the request when it was read. */
  seen: z.string({ error: 'say wire:seenMissing' }).max(64),
});
