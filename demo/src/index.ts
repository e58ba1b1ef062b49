export { MADE_UP, SCHOOLS, schoolVisit } from './asking.ts';
export { demoConfig } from './demoConfig.ts';
export { type DirectoryFile, keepInStep, readDirectory } from './directory.ts';
export { purchase, VOCABULARIES, vessels } from './forms/index.ts';
export { addressOf, CONTACTS, STAFF } from './people.ts';
export { seeded, visit } from './requests.ts';
export { DEMO_NOW, seed } from './seed.ts';
export { deskCalendar } from './siteAccess.ts';
export { VIEWS } from './views.ts';
