import type { Heads } from '../wire/route.ts';

/** Finding requests and people. */
export const findHeads = {
  find: { method: 'POST', path: '/api/find', caller: 'staff' },
} as const satisfies Heads;
