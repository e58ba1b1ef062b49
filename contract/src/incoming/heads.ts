import type { Heads } from '../wire/route.ts';

/** Emails that came to the desk and have no request. */
export const incomingHeads = {
  incomingEmails: { method: 'GET', path: '/api/emails', caller: 'staff', right: 'groundwork' },
  incomingEmail: { method: 'GET', path: '/api/emails/:id', caller: 'staff', right: 'groundwork' },
  incomingFile: {
    ...{ method: 'GET', path: '/api/emails/:id/files/:file', caller: 'staff', right: 'groundwork' },
    gives: 'bytes',
  },
  joinEmail: { method: 'POST', path: '/api/emails/:id/join', caller: 'staff', right: 'groundwork' },
  layEmailAside: { method: 'POST', path: '/api/emails/:id/aside', caller: 'staff', right: 'groundwork' },
  holdEmail: { method: 'POST', path: '/api/emails/:id/hold', caller: 'staff', right: 'groundwork' },
  askByEmail: {
    ...{ method: 'POST', path: '/api/emails/:id/request', caller: 'staff', right: 'groundwork' },
    guard: 'Idempotency-Key',
  },
} as const satisfies Heads;
