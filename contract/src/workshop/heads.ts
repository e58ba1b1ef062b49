import type { Heads } from '../wire/route.ts';

/** Working calendars: what counts, what it was, and what a change would move. */
export const calendarHeads = {
  calendars: { method: 'GET', path: '/api/calendars', caller: 'staff', right: 'groundwork' },
  createCalendar: {
    method: 'POST',
    path: '/api/calendars',
    caller: 'staff',
    right: 'groundwork',
    guard: 'Idempotency-Key',
  },
  calendar: { method: 'GET', path: '/api/calendars/:key', caller: 'staff', right: 'groundwork' },
  tryCalendar: { method: 'POST', path: '/api/calendars/:key/effects', caller: 'staff', right: 'groundwork' },
  countries: { method: 'GET', path: '/api/holidays', caller: 'staff', right: 'groundwork' },
  holidays: { method: 'GET', path: '/api/holidays/:country', caller: 'staff', right: 'groundwork' },
  changeCalendar: {
    method: 'PUT',
    path: '/api/calendars/:key',
    caller: 'staff',
    right: 'groundwork',
    guard: 'If-Match',
  },
} as const satisfies Heads;

/** Registers, and what was in force before. */
export const registerHeads = {
  register: { method: 'GET', path: '/api/registers/:key', caller: 'staff', right: 'configure' },
  doubles: { method: 'GET', path: '/api/registers/:key/doubles', caller: 'staff', right: 'configure' },
  changeRegister: {
    method: 'PUT',
    path: '/api/registers/:key',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  keepRegister: {
    method: 'PUT',
    path: '/api/registers/:key/draft',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  putRegister: {
    method: 'POST',
    path: '/api/registers/:key/states',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  goBackToState: {
    method: 'POST',
    path: '/api/registers/:key/states/:number',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
} as const satisfies Heads;

/** The access plans of registers. */
export const accessHeads = {
  accessPlan: { method: 'GET', path: '/api/registers/:key/access', caller: 'staff', right: 'configure' },
  keepAccessPlan: {
    method: 'PUT',
    path: '/api/registers/:key/access/draft',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  accessPlanGrid: { method: 'GET', path: '/api/registers/:key/access/grid', caller: 'staff', right: 'configure' },
  fieldReaders: { method: 'GET', path: '/api/registers/:key/access/readers', caller: 'staff', right: 'configure' },
  personReads: { method: 'GET', path: '/api/registers/:key/access/person', caller: 'staff', right: 'configure' },
  fieldReach: { method: 'GET', path: '/api/registers/:key/access/reach', caller: 'staff', right: 'configure' },
  seeAs: { method: 'POST', path: '/api/requests/:number/as', caller: 'staff', right: 'build' },
  accessPlanEffect: { method: 'GET', path: '/api/registers/:key/access/effect', caller: 'staff', right: 'configure' },
  putAccessPlan: {
    method: 'POST',
    path: '/api/registers/:key/access',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
} as const satisfies Heads;

/** Building forms and releasing them. */
export const formHeads = {
  askInto: {
    method: 'POST',
    path: '/api/registers/:key/forms',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  duplicateForm: {
    method: 'POST',
    path: '/api/forms/:key/duplicate',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  setFormState: { method: 'PUT', path: '/api/forms/:key/state', caller: 'staff', right: 'configure' },
  replanning: { method: 'POST', path: '/api/forms/:key/replanning', caller: 'staff', right: 'configure' },
  recomputation: { method: 'POST', path: '/api/forms/:key/recomputation', caller: 'staff', right: 'configure' },
  forms: { method: 'GET', path: '/api/forms', caller: 'staff', right: 'work' },
  ground: { method: 'GET', path: '/api/ground', caller: 'staff', right: 'build' },
  findPeople: { method: 'GET', path: '/api/ground/people', caller: 'staff', right: 'build' },
  createForm: { method: 'POST', path: '/api/forms', caller: 'staff', right: 'configure', guard: 'Idempotency-Key' },
  form: { method: 'GET', path: '/api/forms/:key', caller: 'staff', right: 'configure' },
  proofSeat: { method: 'GET', path: '/api/forms/:key/seats/:person', caller: 'staff', right: 'configure' },
  proofTheirs: { method: 'GET', path: '/api/forms/:key/seats/:person/theirs', caller: 'staff', right: 'configure' },
  editionsGiven: { method: 'GET', path: '/api/forms/:key/editions', caller: 'staff', right: 'configure' },
  saveDraft: { method: 'PUT', path: '/api/forms/:key/draft', caller: 'staff', right: 'configure', guard: 'If-Match' },
  releaseForm: {
    method: 'POST',
    path: '/api/forms/:key/releases',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  draftHistory: { method: 'GET', path: '/api/forms/:key/draft/history', caller: 'staff', right: 'configure' },
  compareRelease: { method: 'GET', path: '/api/forms/:key/releases/:number', caller: 'staff', right: 'configure' },
} as const satisfies Heads;

/** Ways in to forms: who comes in, by which proof, when, and how many. */
export const doorHeads = {
  doorDesign: { method: 'GET', path: '/api/doors/:slug/settings', caller: 'staff', right: 'configure' },
  changeDoor: {
    method: 'PUT',
    path: '/api/doors/:slug/settings',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  addDoor: {
    method: 'POST',
    path: '/api/forms/:key/doors',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  doorRemoval: { method: 'GET', path: '/api/doors/:slug/removal', caller: 'staff', right: 'configure' },
  removeDoor: {
    method: 'POST',
    path: '/api/doors/:slug/removal',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  moveDoor: {
    method: 'POST',
    path: '/api/doors/:slug/address',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  tryDoor: { method: 'POST', path: '/api/doors/:slug/reach', caller: 'staff', right: 'configure' },
  setDoor: { method: 'PATCH', path: '/api/doors/:slug', caller: 'staff', right: 'configure' },
} as const satisfies Heads;

/** Forms that are sent to people to fill in. */
export const mailingHeads = {
  mailings: { method: 'GET', path: '/api/forms/:key/mailings', caller: 'staff', right: 'configure' },
  addMailing: {
    method: 'POST',
    path: '/api/forms/:key/mailings',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  tryMailing: { method: 'POST', path: '/api/forms/:key/mailings/reach', caller: 'staff', right: 'configure' },
  changeMailing: { method: 'PUT', path: '/api/mailings/:id', caller: 'staff', right: 'configure', guard: 'If-Match' },
  removeMailing: {
    method: 'POST',
    path: '/api/mailings/:id/removal',
    caller: 'staff',
    right: 'configure',
    guard: 'If-Match',
  },
  sendMailing: {
    method: 'POST',
    path: '/api/mailings/:id/goings',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  owedForms: { method: 'GET', path: '/api/mailings/:id/forms', caller: 'staff', right: 'configure' },
  remindOwed: { method: 'POST', path: '/api/mailings/:id/reminders', caller: 'staff', right: 'configure' },
  endOwed: { method: 'POST', path: '/api/mailings/:id/ended', caller: 'staff', right: 'configure' },
  unjoined: { method: 'GET', path: '/api/mailings/:id/unjoined', caller: 'staff', right: 'configure' },
} as const satisfies Heads;

/** Work over many requests at once, and how far it is. */
export const manyHeads = {
  job: { method: 'GET', path: '/api/jobs/:id', caller: 'staff', right: 'work' },
  stopJob: { method: 'POST', path: '/api/jobs/:id/stop', caller: 'staff', right: 'work' },
  overExisting: { method: 'POST', path: '/api/forms/:key/rules/:rule/existing', caller: 'staff', right: 'configure' },
  takeRunBack: { method: 'POST', path: '/api/forms/:key/runs/:run/back', caller: 'staff', right: 'configure' },
  takeInRows: {
    method: 'POST',
    path: '/api/forms/:key/rows',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
} as const satisfies Heads;

/** Ways that values take to people who may not read them otherwise. */
export const wayHeads = {
  allowWay: {
    method: 'POST',
    path: '/api/forms/:key/disclosures',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  endWay: { method: 'POST', path: '/api/forms/:key/disclosures/:id/end', caller: 'staff', right: 'configure' },
  placeFields: { method: 'POST', path: '/api/forms/:key/places', caller: 'staff', right: 'configure' },
  protectAlike: { method: 'POST', path: '/api/forms/:key/protects', caller: 'staff', right: 'configure' },
} as const satisfies Heads;

/** Trying a draft before anybody asks by it. */
export const tryingHeads = {
  draftUpload: {
    method: 'POST',
    path: '/api/forms/:key/draft/uploads',
    caller: 'staff',
    right: 'configure',
    takes: 'bytes',
  },
  draftPicture: {
    method: 'GET',
    path: '/api/forms/:key/cards/:field/:file',
    caller: 'staff',
    right: 'configure',
    gives: 'bytes',
  },
  draftOffers: { method: 'POST', path: '/api/forms/:key/offers', caller: 'staff', right: 'configure' },
  sendTrial: {
    method: 'POST',
    path: '/api/forms/:key/trials',
    caller: 'staff',
    right: 'configure',
    guard: 'Idempotency-Key',
  },
  clearTrials: { method: 'POST', path: '/api/forms/:key/trials/clear', caller: 'staff', right: 'configure' },
  tryCondition: { method: 'POST', path: '/api/forms/:key/tries', caller: 'staff', right: 'configure' },
  showNotice: { method: 'POST', path: '/api/forms/:key/notices/shown', caller: 'staff', right: 'configure' },
} as const satisfies Heads;

/** Vocabularies, and where they are used. */
export const vocabularyHeads = {
  vocabularies: { method: 'GET', path: '/api/vocabularies', caller: 'staff', right: 'work' },
  vocabulary: { method: 'GET', path: '/api/vocabularies/:key', caller: 'staff', right: 'work' },
  createVocabulary: {
    method: 'POST',
    path: '/api/vocabularies',
    caller: 'staff',
    right: 'groundwork',
    guard: 'Idempotency-Key',
  },
  saveVocabulary: {
    method: 'PUT',
    path: '/api/vocabularies/:key',
    caller: 'staff',
    right: 'groundwork',
    guard: 'If-Match',
  },
} as const satisfies Heads;
