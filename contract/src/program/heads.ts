import type { Heads } from '../wire/route.ts';

/** Other programs: what they may do by keys of their own, and what they are told. */
export const programHeads = {
  programs: { method: 'GET', path: '/api/programs', caller: 'staff', right: 'groundwork' },
  createProgram: {
    method: 'POST',
    path: '/api/programs',
    caller: 'staff',
    right: 'rights',
    guard: 'Idempotency-Key',
  },
  program: { method: 'GET', path: '/api/programs/:key', caller: 'staff', right: 'groundwork' },
  changeProgram: {
    method: 'PUT',
    path: '/api/programs/:key',
    caller: 'staff',
    right: 'rights',
    guard: 'If-Match',
  },
  addProgramKey: { method: 'POST', path: '/api/programs/:key/keys', caller: 'staff', right: 'rights' },
  endProgramKey: { method: 'POST', path: '/api/programs/:key/keys/:id/end', caller: 'staff', right: 'rights' },
  programSecret: { method: 'GET', path: '/api/programs/:key/secret', caller: 'staff', right: 'rights' },
  renewProgramSecret: { method: 'POST', path: '/api/programs/:key/secret', caller: 'staff', right: 'rights' },
  tryProgram: { method: 'POST', path: '/api/programs/:key/tests', caller: 'staff', right: 'rights' },
  tellProgramAgain: { method: 'POST', path: '/api/programs/:key/told/:id/again', caller: 'staff', right: 'rights' },
  hearAsProgram: {
    method: 'POST',
    path: '/api/stand-in/programs/:name',
    caller: 'anyone',
    standsIn: true,
    takes: 'bytes',
  },
  toldPrograms: { method: 'GET', path: '/api/stand-in/programs', caller: 'anyone' },
} as const satisfies Heads;
