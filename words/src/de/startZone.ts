export { absences } from './absences.ts';
export { hearing } from './hearing.ts';
export { pictures } from './pictures.ts';
export { settings } from './settings.ts';
export { start } from './start.ts';
