import type { Heads } from '../wire/route.ts';

/** The first start, and what leads people in. */
export const startHeads = {
  firstStart: { method: 'GET', path: '/api/first-start/:token', caller: 'link' },
  layGround: { method: 'POST', path: '/api/first-start/:token', caller: 'link' },
  invitation: { method: 'GET', path: '/api/invitations/:token', caller: 'link' },
  acceptInvitation: { method: 'POST', path: '/api/invitations/:token', caller: 'link' },
} as const satisfies Heads;

/** One’s own account. */
export const accountHeads = {
  forgotPassword: { method: 'POST', path: '/api/password-resets', caller: 'anyone' },
  askForCode: { method: 'POST', path: '/api/sign-in/letters', caller: 'anyone' },
  signInByCode: { method: 'POST', path: '/api/sign-in/code', caller: 'anyone' },
  signInByLink: { method: 'POST', path: '/api/sign-in/links/:token', caller: 'link' },
  account: { method: 'GET', path: '/api/me/account', caller: 'staff' },
  ownEmails: { method: 'GET', path: '/api/me/emails', caller: 'staff' },
  setOwnEmails: { method: 'PUT', path: '/api/me/emails', caller: 'staff' },
  endSession: { method: 'POST', path: '/api/me/sessions/:id/end', caller: 'staff' },
  changePassword: { method: 'POST', path: '/api/me/password', caller: 'staff' },
  endTheirSession: {
    method: 'POST',
    path: '/api/people/:id/sessions/:session/end',
    caller: 'staff',
    right: 'people',
  },
  endPasskey: { method: 'POST', path: '/api/me/passkeys/:id/end', caller: 'staff' },
  signOutPerson: { method: 'POST', path: '/api/people/:id/sign-out', caller: 'staff', right: 'people' },
} as const satisfies Heads;

/** How staff sign in. */
export const signInHeads = {
  signInWays: { method: 'GET', path: '/api/sign-in-ways', caller: 'anyone' },
  signInSettings: { method: 'GET', path: '/api/groundwork/sign-in', caller: 'staff', right: 'people' },
  addProvider: {
    method: 'POST',
    path: '/api/groundwork/sign-in/providers',
    caller: 'staff',
    right: 'rights',
    guard: 'Idempotency-Key',
  },
  changeProvider: {
    method: 'PUT',
    path: '/api/groundwork/sign-in/providers/:id',
    caller: 'staff',
    right: 'rights',
    guard: 'If-Match',
  },
  setPasswords: { method: 'PUT', path: '/api/groundwork/sign-in/passwords', caller: 'staff', right: 'rights' },
  endTheirCode: { method: 'POST', path: '/api/people/:id/code/end', caller: 'staff', right: 'people' },
} as const satisfies Heads;

/** Pictures of people and of the desk. */
export const pictureHeads = {
  portrait: { method: 'GET', path: '/api/people/:id/portrait', caller: 'staff', gives: 'bytes' },
  setPortrait: { method: 'PUT', path: '/api/people/:id/portrait', caller: 'staff', right: 'people' },
  setOwnPortrait: { method: 'PUT', path: '/api/me/portrait', caller: 'staff' },
  deskLogo: { method: 'GET', path: '/api/desk/logo', caller: 'anyone', gives: 'bytes' },
  setLogo: { method: 'PUT', path: '/api/groundwork/desk/logo', caller: 'staff', right: 'groundwork' },
} as const satisfies Heads;

/** The desk itself. */
export const settingHeads = {
  groundwork: { method: 'GET', path: '/api/groundwork', caller: 'staff', right: 'work' },
  deskSettings: { method: 'GET', path: '/api/groundwork/desk', caller: 'staff', right: 'groundwork' },
  changeDesk: { method: 'PUT', path: '/api/groundwork/desk', caller: 'staff', right: 'groundwork', guard: 'If-Match' },
  skills: { method: 'GET', path: '/api/groundwork/skills', caller: 'staff', right: 'groundwork' },
  sendTestEmail: { method: 'POST', path: '/api/groundwork/test-emails', caller: 'staff', right: 'groundwork' },
  testEmail: { method: 'GET', path: '/api/groundwork/test-emails/:id', caller: 'staff', right: 'groundwork' },
} as const satisfies Heads;

/** Who may do what. */
export const rightHeads = {
  rights: { method: 'GET', path: '/api/rights', caller: 'staff', right: 'work' },
  registerRights: { method: 'GET', path: '/api/registers/:key/rights', caller: 'staff', right: 'work' },
  registerRightsPlan: { method: 'GET', path: '/api/registers/:key/rights/plan', caller: 'staff', right: 'rights' },
  setRegisterRights: { method: 'PUT', path: '/api/registers/:key/rights', caller: 'staff', right: 'rights' },
  rightsOnDay: { method: 'GET', path: '/api/rights-on/:day', caller: 'staff', right: 'audit' },
  rightHolders: { method: 'GET', path: '/api/rights/:right/people', caller: 'staff', right: 'people' },
  changeRights: { method: 'PUT', path: '/api/rights/:subject', caller: 'staff', right: 'rights' },
} as const satisfies Heads;

/** What the desk knows of people besides. */
export const profileHeads = {
  profile: { method: 'GET', path: '/api/groundwork/profile', caller: 'staff', right: 'people' },
  changeProfile: {
    method: 'PUT',
    path: '/api/groundwork/profile',
    caller: 'staff',
    right: 'groundwork',
    guard: 'If-Match',
  },
} as const satisfies Heads;

/** When people are away. */
export const absenceHeads = {
  addAbsence: {
    method: 'POST',
    path: '/api/people/:id/absences',
    caller: 'staff',
    right: 'people',
    guard: 'Idempotency-Key',
  },
  endAbsence: { method: 'POST', path: '/api/people/:id/absences/:absence/end', caller: 'staff', right: 'people' },
  addOwnAbsence: { method: 'POST', path: '/api/me/absences', caller: 'staff', guard: 'Idempotency-Key' },
  endOwnAbsence: { method: 'POST', path: '/api/me/absences/:absence/end', caller: 'staff' },
  colleagues: { method: 'GET', path: '/api/me/colleagues', caller: 'staff' },
} as const satisfies Heads;

/** People out of a file, and back into one. */
export const importHeads = {
  lookAtPeople: { method: 'POST', path: '/api/people/imports/look', caller: 'staff', right: 'people' },
  importPeople: {
    method: 'POST',
    path: '/api/people/imports',
    caller: 'staff',
    right: 'people',
    guard: 'Idempotency-Key',
  },
  peopleImports: { method: 'GET', path: '/api/people-imports', caller: 'staff', right: 'people' },
  undoImport: { method: 'POST', path: '/api/people/imports/:id/undo', caller: 'staff', right: 'people' },
  peopleSheet: { method: 'GET', path: '/api/people.csv', caller: 'staff', right: 'people', gives: 'csv' },
} as const satisfies Heads;

/** What is deleted of the ground, where nothing uses it. */
export const groundDeletionHeads = {
  groundDeletion: { method: 'GET', path: '/api/groundwork/deletion/:kind/:key', caller: 'staff', right: 'work' },
  deleteGround: { method: 'POST', path: '/api/groundwork/deletion/:kind/:key', caller: 'staff', right: 'work' },
} as const satisfies Heads;

/** What was set of people, groups and rights, undone one by one. */
export const stepBackHeads = {
  stepBackPlan: { method: 'GET', path: '/api/ground-history/:id/back', caller: 'staff', right: 'work' },
  sayWhy: { method: 'PUT', path: '/api/ground-history/:id/why', caller: 'staff', right: 'work' },
  stepBack: { method: 'POST', path: '/api/ground-history/:id/back', caller: 'staff', right: 'work' },
} as const satisfies Heads;

/** People and groups. */
export const peopleHeads = {
  people: { method: 'GET', path: '/api/people', caller: 'staff', right: 'people' },
  person: { method: 'GET', path: '/api/people/:id', caller: 'staff', right: 'people' },
  addPerson: { method: 'POST', path: '/api/people', caller: 'staff', right: 'people', guard: 'Idempotency-Key' },
  changePerson: { method: 'PUT', path: '/api/people/:id', caller: 'staff', right: 'people', guard: 'If-Match' },
  invite: { method: 'POST', path: '/api/people/invitations', caller: 'staff', right: 'people' },
  handOverPlan: { method: 'GET', path: '/api/people/:id/hand-over', caller: 'staff', right: 'people' },
  handOver: { method: 'POST', path: '/api/people/:id/hand-over', caller: 'staff', right: 'people' },
  mergePlan: { method: 'GET', path: '/api/people/:id/merge', caller: 'staff', right: 'people' },
  mergePeople: { method: 'POST', path: '/api/people/:id/merge', caller: 'staff', right: 'people' },
  groups: { method: 'GET', path: '/api/groups', caller: 'staff', right: 'work' },
  group: { method: 'GET', path: '/api/groups/:key', caller: 'staff', right: 'work' },
  addGroup: { method: 'POST', path: '/api/groups', caller: 'staff', right: 'people', guard: 'Idempotency-Key' },
  changeGroup: { method: 'PUT', path: '/api/groups/:key', caller: 'staff', right: 'people', guard: 'If-Match' },
  tryRule: { method: 'POST', path: '/api/groups/:key/rule', caller: 'staff', right: 'people' },
  enterGroup: {
    method: 'POST',
    path: '/api/groups/:key/entries',
    caller: 'staff',
    right: 'people',
    guard: 'Idempotency-Key',
  },
  leaveGroup: { method: 'POST', path: '/api/groups/:key/entries/:entry/end', caller: 'staff', right: 'people' },
} as const satisfies Heads;
