import type { Heads } from '../wire/route.ts';

/** The first start, and what leads people in. */
export const startHeads = {
  firstStart: { method: 'GET', path: '/api/first-start/:token', caller: 'link' },
  layGround: { method: 'POST', path: '/api/first-start/:token', caller: 'link' },
  invitation: { method: 'GET', path: '/api/invitations/:token', caller: 'link' },
  acceptInvitation: { method: 'POST', path: '/api/invitations/:token', caller: 'link' },
} as const satisfies Heads;

/** The desk itself. */
export const settingHeads = {
  groundwork: { method: 'GET', path: '/api/groundwork', caller: 'coordinator' },
  deskSettings: { method: 'GET', path: '/api/groundwork/desk', caller: 'coordinator' },
  changeDesk: { method: 'PUT', path: '/api/groundwork/desk', caller: 'coordinator', guard: 'If-Match' },
  sendTestEmail: { method: 'POST', path: '/api/groundwork/test-emails', caller: 'coordinator' },
  testEmail: { method: 'GET', path: '/api/groundwork/test-emails/:id', caller: 'coordinator' },
} as const satisfies Heads;

/** People and groups. */
export const peopleHeads = {
  people: { method: 'GET', path: '/api/people', caller: 'coordinator' },
  person: { method: 'GET', path: '/api/people/:id', caller: 'coordinator' },
  addPerson: { method: 'POST', path: '/api/people', caller: 'coordinator', guard: 'Idempotency-Key' },
  changePerson: { method: 'PUT', path: '/api/people/:id', caller: 'coordinator', guard: 'If-Match' },
  invite: { method: 'POST', path: '/api/people/invitations', caller: 'coordinator' },
  groups: { method: 'GET', path: '/api/groups', caller: 'coordinator' },
  group: { method: 'GET', path: '/api/groups/:key', caller: 'coordinator' },
  addGroup: { method: 'POST', path: '/api/groups', caller: 'coordinator', guard: 'Idempotency-Key' },
  changeGroup: { method: 'PUT', path: '/api/groups/:key', caller: 'coordinator', guard: 'If-Match' },
  enterGroup: { method: 'POST', path: '/api/groups/:key/entries', caller: 'coordinator', guard: 'Idempotency-Key' },
  leaveGroup: { method: 'POST', path: '/api/groups/:key/entries/:entry/end', caller: 'coordinator' },
} as const satisfies Heads;
