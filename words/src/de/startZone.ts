export { absences } from './absences.ts';
export { pictures } from './pictures.ts';
export { settings } from './settings.ts';
export { start } from './start.ts';
