import type { Heads } from '../wire/route.ts';

/** What people do to requests. */
export const deskHeads = {
  changeFields: { method: 'PATCH', path: '/api/requests/:number/fields', caller: 'staff', guard: 'If-Match' },
  moveStage: { method: 'POST', path: '/api/requests/:number/stage', caller: 'staff', guard: 'If-Match' },
  freeRequest: { method: 'POST', path: '/api/requests/:number/freeing', caller: 'staff', guard: 'If-Match' },
  reroute: { method: 'POST', path: '/api/requests/:number/routing', caller: 'staff', guard: 'If-Match' },
  assign: { method: 'POST', path: '/api/requests/:number/handler', caller: 'staff', guard: 'If-Match' },
  shareTargets: { method: 'GET', path: '/api/requests/:number/share-targets', caller: 'staff' },
  shareRequest: { method: 'POST', path: '/api/requests/:number/shares', caller: 'staff' },
  unshareRequest: { method: 'POST', path: '/api/requests/:number/shares/:holder/end', caller: 'staff' },
  askAbout: { method: 'POST', path: '/api/requests/:number/asking', caller: 'staff', guard: 'Idempotency-Key' },
  followRequest: { method: 'POST', path: '/api/requests/:number/following', caller: 'staff' },
  deletionPlan: { method: 'GET', path: '/api/requests/:number/deletion', caller: 'staff' },
  deleteRequest: { method: 'POST', path: '/api/requests/:number/deletion', caller: 'staff', guard: 'If-Match' },
  deletedIn: { method: 'GET', path: '/api/registers/:key/deleted', caller: 'staff', right: 'configure' },
  comment: { method: 'POST', path: '/api/requests/:number/comments', caller: 'staff' },
  decide: { method: 'POST', path: '/api/requests/:number/decision', caller: 'staff', guard: 'Idempotency-Key' },
  decideByLink: { method: 'POST', path: '/api/decisions/:token', caller: 'link', guard: 'Idempotency-Key' },
  followMessage: { method: 'POST', path: '/api/follow/:token/messages', caller: 'link' },
  changeFollowed: { method: 'PATCH', path: '/api/follow/:token/fields', caller: 'link', guard: 'If-Match' },
  changeMine: { method: 'PATCH', path: '/api/my/requests/:number/fields', caller: 'person', guard: 'If-Match' },
  withdrawFollowed: { method: 'POST', path: '/api/follow/:token/withdrawal', caller: 'link', guard: 'If-Match' },
  withdrawMine: { method: 'POST', path: '/api/my/requests/:number/withdrawal', caller: 'person', guard: 'If-Match' },
  passOn: { method: 'POST', path: '/api/my/forms/:id/passing', caller: 'staff' },
  myMessage: { method: 'POST', path: '/api/my/requests/:number/messages', caller: 'person' },
} as const satisfies Heads;
