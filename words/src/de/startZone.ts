export { absences } from './absences.ts';
export { settings } from './settings.ts';
export { start } from './start.ts';
