import type { Heads } from '../wire/route.ts';

/** Rosters: who is on duty when, and what people swap among themselves. */
export const rosterHeads = {
  rosters: { method: 'GET', path: '/api/rosters', caller: 'staff', right: 'groundwork' },
  createRoster: {
    method: 'POST',
    path: '/api/rosters',
    caller: 'staff',
    right: 'groundwork',
    guard: 'Idempotency-Key',
  },
  roster: { method: 'GET', path: '/api/rosters/:key', caller: 'staff', right: 'groundwork' },
  changeRoster: {
    method: 'PUT',
    path: '/api/rosters/:key',
    caller: 'staff',
    right: 'groundwork',
    guard: 'If-Match',
  },
  duty: { method: 'GET', path: '/api/duty', caller: 'staff' },
  offerDuty: { method: 'POST', path: '/api/duty/offers', caller: 'staff', guard: 'Idempotency-Key' },
  answerOffer: { method: 'POST', path: '/api/duty/offers/:id', caller: 'staff' },
} as const satisfies Heads;
