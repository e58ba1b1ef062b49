import { dataTask, type RestAfterNow } from '../platform/apart.ts';
import type { servedRows, serviceTimes } from './times.ts';

/** How long requests took. */
export const SERVICE_TIMES = dataTask<RestAfterNow<typeof serviceTimes>, ReturnType<typeof serviceTimes>>(
  'serviceTimes',
);
/** The requests behind a figure of that. */
export const SERVED_ROWS = dataTask<RestAfterNow<typeof servedRows>, ReturnType<typeof servedRows>>('servedRows');
