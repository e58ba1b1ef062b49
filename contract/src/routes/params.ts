import { z } from 'zod';
import { rawAnswers } from '../schemas.ts';

export const text = z.string().trim().min(1, 'Write something first.').max(5_000);
export const numbered = z.strictObject({ number: z.string().max(20) });
export const withToken = z.strictObject({ token: z.string().max(100) });
export const keyed = z.strictObject({ key: z.string().max(64) });
export const slugged = z.strictObject({ slug: z.string().max(64) });
/** What is looked for in a reference, and the answers that limit what is offered. */
export const asksForOffers = z.strictObject({
  field: z.string().max(64),
  find: z.string().max(100),
  answers: rawAnswers,
});
/** The letters before numbers. */
export const prefix = z.string().regex(/^[A-Z]{2,5}$/, 'Use two to five capital letters, like AC.');
export const done = z.object({ done: z.literal(true) });
export const decision = z.strictObject({
  verdict: z.enum(['approve', 'refuse'], 'Choose approve or refuse.'),
  comment: z.string().max(5_000),
  /** Stood for the request when it was read. */
  seen: z.string({ error: 'Say what was read: “seen”, as it came with the request.' }).max(64),
});
export const versioned = z.object({ version: z.int() });

export const trayKeys = ['arrived', 'mine', 'team', 'deciding', 'paused', 'late', 'all', 'things'] as const;
export type TrayKey = (typeof trayKeys)[number];
