import type { Heads } from '../wire/route.ts';

/** Reports: views, figures, service times and words on one page. */
export const reportHeads = {
  reports: { method: 'GET', path: '/api/reports', caller: 'staff' },
  lookAtReport: { method: 'POST', path: '/api/reports/look', caller: 'staff' },
  makeReport: { method: 'POST', path: '/api/reports', caller: 'staff', guard: 'Idempotency-Key' },
  report: { method: 'GET', path: '/api/reports/:id', caller: 'staff' },
  changeReport: { method: 'PUT', path: '/api/reports/:id', caller: 'staff', guard: 'If-Match' },
  removeReport: { method: 'POST', path: '/api/reports/:id/removal', caller: 'staff' },
  freezeReport: { method: 'POST', path: '/api/reports/:id/copies', caller: 'staff', guard: 'Idempotency-Key' },
  reportCopy: { method: 'GET', path: '/api/reports/:id/copies/:copy', caller: 'staff' },
  removeReportCopy: { method: 'POST', path: '/api/reports/:id/copies/:copy/removal', caller: 'staff' },
} as const satisfies Heads;
