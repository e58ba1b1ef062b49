import type { Heads } from '../wire/route.ts';

/** What people do to requests. */
export const deskHeads = {
  changeFields: { method: 'PATCH', path: '/api/requests/:number/fields', caller: 'staff', guard: 'If-Match' },
  moveStage: { method: 'POST', path: '/api/requests/:number/stage', caller: 'staff', guard: 'If-Match' },
  freeRequest: { method: 'POST', path: '/api/requests/:number/freeing', caller: 'staff', guard: 'If-Match' },
  reroute: { method: 'POST', path: '/api/requests/:number/routing', caller: 'staff', guard: 'If-Match' },
  assign: { method: 'POST', path: '/api/requests/:number/handler', caller: 'staff', guard: 'If-Match' },
  comment: { method: 'POST', path: '/api/requests/:number/comments', caller: 'staff' },
  decide: { method: 'POST', path: '/api/requests/:number/decision', caller: 'staff', guard: 'Idempotency-Key' },
  decideByLink: { method: 'POST', path: '/api/decisions/:token', caller: 'link', guard: 'Idempotency-Key' },
  followMessage: { method: 'POST', path: '/api/follow/:token/messages', caller: 'link' },
  myMessage: { method: 'POST', path: '/api/my/requests/:number/messages', caller: 'staff' },
} as const satisfies Heads;
