import type { Heads } from '../wire/route.ts';

/** Asking: doors, answers that are kept, and confirming an address. */
export const intakeHeads = {
  door: { method: 'GET', path: '/api/doors/:slug', caller: 'anyone' },
  checkAnswers: { method: 'POST', path: '/api/doors/:slug/checks', caller: 'anyone' },
  offers: { method: 'POST', path: '/api/doors/:slug/offers', caller: 'anyone' },
  cardPicture: { method: 'GET', path: '/api/doors/:slug/cards/:field/:file', caller: 'anyone', gives: 'bytes' },
  keepAnswers: { method: 'PUT', path: '/api/doors/:slug/kept', caller: 'person' },
  sendKept: { method: 'POST', path: '/api/doors/:slug/kept', caller: 'anyone' },
  kept: { method: 'GET', path: '/api/kept/:token', caller: 'link' },
  keepKept: { method: 'PUT', path: '/api/kept/:token', caller: 'link' },
  upload: { method: 'POST', path: '/api/doors/:slug/uploads', caller: 'anyone', takes: 'bytes' },
  submit: { method: 'POST', path: '/api/doors/:slug/requests', caller: 'anyone', guard: 'Idempotency-Key' },
  joinLine: { method: 'POST', path: '/api/doors/:slug/line', caller: 'anyone' },
  leaveLine: { method: 'POST', path: '/api/doors/:slug/line/leave', caller: 'anyone' },
  work: { method: 'GET', path: '/api/doors/:slug/work', caller: 'anyone' },
  confirmation: { method: 'GET', path: '/api/confirmations/:token', caller: 'link' },
  confirm: { method: 'POST', path: '/api/confirmations/:token', caller: 'link' },
  sentState: { method: 'GET', path: '/api/sent/:token', caller: 'link' },
  sendAgain: { method: 'POST', path: '/api/sent/:token', caller: 'link' },
  backToAnswers: { method: 'POST', path: '/api/confirmations/:token/answers', caller: 'link' },
} as const satisfies Heads;
