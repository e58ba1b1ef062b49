import { z } from 'zod';

export const decision = z.strictObject({
  verdict: z.enum(['approve', 'refuse'], 'Choose approve or refuse.'),
  comment: z.string().max(5_000),
  /** Stood for the request when it was read. */
  seen: z.string({ error: 'Say what was read: “seen”, as it came with the request.' }).max(64),
});
