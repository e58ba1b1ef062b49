import type { Heads } from '../wire/route.ts';

/** Working calendars: what counts, what it was, and what a change would move. */
export const calendarHeads = {
  calendars: { method: 'GET', path: '/api/calendars', caller: 'coordinator' },
  createCalendar: { method: 'POST', path: '/api/calendars', caller: 'coordinator', guard: 'Idempotency-Key' },
  calendar: { method: 'GET', path: '/api/calendars/:key', caller: 'coordinator' },
  tryCalendar: { method: 'POST', path: '/api/calendars/:key/effects', caller: 'coordinator' },
  countries: { method: 'GET', path: '/api/holidays', caller: 'coordinator' },
  holidays: { method: 'GET', path: '/api/holidays/:country', caller: 'coordinator' },
  changeCalendar: { method: 'PUT', path: '/api/calendars/:key', caller: 'coordinator', guard: 'If-Match' },
} as const satisfies Heads;

/** Registers, and what was in force before. */
export const registerHeads = {
  register: { method: 'GET', path: '/api/registers/:key', caller: 'coordinator' },
  doubles: { method: 'GET', path: '/api/registers/:key/doubles', caller: 'coordinator' },
  changeRegister: { method: 'PUT', path: '/api/registers/:key', caller: 'coordinator', guard: 'If-Match' },
  keepRegister: { method: 'PUT', path: '/api/registers/:key/draft', caller: 'coordinator', guard: 'If-Match' },
  putRegister: { method: 'POST', path: '/api/registers/:key/states', caller: 'coordinator', guard: 'If-Match' },
  goBackToState: {
    method: 'POST',
    path: '/api/registers/:key/states/:number',
    caller: 'coordinator',
    guard: 'If-Match',
  },
} as const satisfies Heads;

/** Building forms and releasing them. */
export const formHeads = {
  askInto: { method: 'POST', path: '/api/registers/:key/forms', caller: 'coordinator', guard: 'Idempotency-Key' },
  duplicateForm: { method: 'POST', path: '/api/forms/:key/duplicate', caller: 'coordinator', guard: 'Idempotency-Key' },
  setFormState: { method: 'PUT', path: '/api/forms/:key/state', caller: 'coordinator' },
  recomputation: { method: 'POST', path: '/api/forms/:key/recomputation', caller: 'coordinator' },
  forms: { method: 'GET', path: '/api/forms', caller: 'coordinator' },
  ground: { method: 'GET', path: '/api/ground', caller: 'coordinator' },
  createForm: { method: 'POST', path: '/api/forms', caller: 'coordinator', guard: 'Idempotency-Key' },
  form: { method: 'GET', path: '/api/forms/:key', caller: 'coordinator' },
  saveDraft: { method: 'PUT', path: '/api/forms/:key/draft', caller: 'coordinator', guard: 'If-Match' },
  releaseForm: { method: 'POST', path: '/api/forms/:key/releases', caller: 'coordinator', guard: 'If-Match' },
  draftHistory: { method: 'GET', path: '/api/forms/:key/draft/history', caller: 'coordinator' },
  compareRelease: { method: 'GET', path: '/api/forms/:key/releases/:number', caller: 'coordinator' },
} as const satisfies Heads;

/** Ways in to forms: who comes in, by which proof, when, and how many. */
export const doorHeads = {
  doorDesign: { method: 'GET', path: '/api/doors/:slug/settings', caller: 'coordinator' },
  changeDoor: { method: 'PUT', path: '/api/doors/:slug/settings', caller: 'coordinator', guard: 'If-Match' },
  addDoor: { method: 'POST', path: '/api/forms/:key/doors', caller: 'coordinator', guard: 'Idempotency-Key' },
  setDoor: { method: 'PATCH', path: '/api/doors/:slug', caller: 'coordinator' },
} as const satisfies Heads;

/** Work over many requests at once, and how far it is. */
export const manyHeads = {
  job: { method: 'GET', path: '/api/jobs/:id', caller: 'coordinator' },
  stopJob: { method: 'POST', path: '/api/jobs/:id/stop', caller: 'coordinator' },
  overExisting: { method: 'POST', path: '/api/forms/:key/rules/:rule/existing', caller: 'coordinator' },
  takeRunBack: { method: 'POST', path: '/api/forms/:key/runs/:run/back', caller: 'coordinator' },
  takeInRows: {
    method: 'POST',
    path: '/api/forms/:key/rows',
    caller: 'coordinator',
    guard: 'Idempotency-Key',
  },
} as const satisfies Heads;

/** Ways that values take to people who may not read them otherwise. */
export const wayHeads = {
  allowWay: { method: 'POST', path: '/api/forms/:key/disclosures', caller: 'coordinator', guard: 'Idempotency-Key' },
  endWay: { method: 'POST', path: '/api/forms/:key/disclosures/:id/end', caller: 'coordinator' },
  protectAlike: { method: 'POST', path: '/api/forms/:key/protects', caller: 'coordinator' },
} as const satisfies Heads;

/** Trying a draft before anybody asks by it. */
export const tryingHeads = {
  draftUpload: { method: 'POST', path: '/api/forms/:key/draft/uploads', caller: 'coordinator', takes: 'bytes' },
  draftOffers: { method: 'POST', path: '/api/forms/:key/offers', caller: 'coordinator' },
  sendTrial: { method: 'POST', path: '/api/forms/:key/trials', caller: 'coordinator', guard: 'Idempotency-Key' },
  clearTrials: { method: 'POST', path: '/api/forms/:key/trials/clear', caller: 'coordinator' },
  tryCondition: { method: 'POST', path: '/api/forms/:key/tries', caller: 'coordinator' },
} as const satisfies Heads;

/** Vocabularies, and where they are used. */
export const vocabularyHeads = {
  vocabularies: { method: 'GET', path: '/api/vocabularies', caller: 'coordinator' },
  vocabulary: { method: 'GET', path: '/api/vocabularies/:key', caller: 'coordinator' },
  createVocabulary: { method: 'POST', path: '/api/vocabularies', caller: 'coordinator', guard: 'Idempotency-Key' },
  saveVocabulary: { method: 'PUT', path: '/api/vocabularies/:key', caller: 'coordinator', guard: 'If-Match' },
} as const satisfies Heads;
