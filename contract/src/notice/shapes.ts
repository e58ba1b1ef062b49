import { z } from 'zod';
import { moment } from '../wire/shapes.ts';

export const letter = z.object({
  id: z.string(),
  receivedAt: moment,
  from: z.string(),
  to: z.string(),
  subject: z.string(),
  text: z.string(),
  html: z.string(),
  headers: z.array(z.object({ name: z.string(), value: z.string() })),
});
