import type { Heads } from '../wire/route.ts';

/** How long requests took. */
export const serviceHeads = {
  serviceTimes: { method: 'GET', path: '/api/service', caller: 'staff' },
  servedRows: { method: 'GET', path: '/api/service/rows', caller: 'staff' },
} as const satisfies Heads;
