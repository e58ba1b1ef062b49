import type { Heads } from '../wire/route.ts';

/** What people read: trays, the ledger, sheets, their own requests, files. */
export const viewHeads = {
  frontDesk: { method: 'GET', path: '/api/desk', caller: 'anyone' },
  trays: { method: 'GET', path: '/api/trays', caller: 'staff', programs: true },
  ledger: { method: 'GET', path: '/api/requests', caller: 'staff', programs: true },
  decisionsAlike: { method: 'GET', path: '/api/requests/:number/decision/alike', caller: 'staff' },
  sheet: { method: 'GET', path: '/api/requests/:number', caller: 'staff', programs: true },
  requestCourse: { method: 'GET', path: '/api/requests/:number/course', caller: 'staff', programs: true },
  requestEmails: { method: 'GET', path: '/api/requests/:number/emails', caller: 'staff' },
  sentEmails: { method: 'GET', path: '/api/sent-emails', caller: 'staff', right: 'groundwork' },
  file: { method: 'GET', path: '/api/requests/:number/files/:id', caller: 'person', programs: true, gives: 'bytes' },
  smallFile: { method: 'GET', path: '/api/requests/:number/files/:id/small', caller: 'person', gives: 'bytes' },
  changedBy: { method: 'GET', path: '/api/requests/:number/changing', caller: 'staff' },
  sheetUpload: {
    method: 'POST',
    path: '/api/requests/:number/uploads',
    caller: 'staff',
    programs: true,
    takes: 'bytes',
  },
  messageUpload: {
    method: 'POST',
    path: '/api/requests/:number/message-files',
    caller: 'person',
    programs: true,
    takes: 'bytes',
  },
  myMessageUpload: { method: 'POST', path: '/api/my/requests/:number/message-files', caller: 'person', takes: 'bytes' },
  followMessageUpload: { method: 'POST', path: '/api/follow/:token/message-files', caller: 'link', takes: 'bytes' },
  sheetOffers: { method: 'POST', path: '/api/requests/:number/offers', caller: 'staff' },
  proposalLink: { method: 'GET', path: '/api/proposals/:token', caller: 'link' },
  decisionLink: { method: 'GET', path: '/api/decisions/:token', caller: 'link' },
  live: { method: 'GET', path: '/api/live', caller: 'staff', gives: 'events' },
  follow: { method: 'GET', path: '/api/follow/:token', caller: 'link' },
  followFile: { method: 'GET', path: '/api/follow/:token/files/:id', caller: 'link', gives: 'bytes' },
  given: { method: 'GET', path: '/api/given/:number', caller: 'person' },
  myRequest: { method: 'GET', path: '/api/my/requests/:number', caller: 'person' },
  takeOut: {
    method: 'GET',
    path: '/api/forms/:key/requests.csv',
    caller: 'staff',
    programs: true,
    right: 'export',
    gives: 'csv',
  },
} as const satisfies Heads;

/** Shared results. */
export const sharedHeads = {
  sharedResults: { method: 'GET', path: '/api/shared-results', caller: 'staff' },
  sharable: { method: 'GET', path: '/api/registers/:key/sharable', caller: 'staff' },
  lookAtShared: { method: 'POST', path: '/api/shared-results/look', caller: 'staff' },
  shareResult: { method: 'POST', path: '/api/shared-results', caller: 'staff', guard: 'Idempotency-Key' },
  changeShared: { method: 'PUT', path: '/api/shared-results/:id', caller: 'staff' },
  endShared: { method: 'POST', path: '/api/shared-results/:id/end', caller: 'staff' },
  sharedResult: { method: 'GET', path: '/api/shared-results/:id', caller: 'staff' },
  sharedByLink: { method: 'GET', path: '/api/shared/:token', caller: 'link' },
  sharedFile: { method: 'GET', path: '/api/shared-results/:id/rows.csv', caller: 'staff', gives: 'csv' },
  sharedFileByLink: { method: 'GET', path: '/api/shared/:token/rows.csv', caller: 'link', gives: 'csv' },
} as const satisfies Heads;

/** Views: ways to look at requests and things that are kept. */
export const savedViewHeads = {
  views: { method: 'GET', path: '/api/views', caller: 'staff' },
  nameable: { method: 'GET', path: '/api/views/nameable', caller: 'staff' },
  lookThrough: { method: 'POST', path: '/api/views/look', caller: 'staff' },
  lookAgain: { method: 'POST', path: '/api/views/again', caller: 'staff' },
  addUpView: { method: 'POST', path: '/api/views/sums', caller: 'staff' },
  lookAtBoard: { method: 'POST', path: '/api/views/board', caller: 'staff' },
  lookAtCalendar: { method: 'POST', path: '/api/views/calendar', caller: 'staff' },
  lookAtChart: { method: 'POST', path: '/api/views/chart', caller: 'staff' },
  lookAtMatrix: { method: 'POST', path: '/api/views/matrix', caller: 'staff' },
  lookAtTotals: { method: 'POST', path: '/api/views/totals', caller: 'staff' },
  takeOutView: { method: 'POST', path: '/api/views/out', caller: 'staff', right: 'export', gives: 'bytes' },
  makeView: { method: 'POST', path: '/api/views', caller: 'staff', guard: 'Idempotency-Key' },
  view: { method: 'GET', path: '/api/views/:id', caller: 'staff' },
  changeView: { method: 'PUT', path: '/api/views/:id', caller: 'staff', guard: 'If-Match' },
  removeView: { method: 'POST', path: '/api/views/:id/removal', caller: 'staff' },
} as const satisfies Heads;
