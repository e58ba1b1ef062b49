/** What the first start and a first sign-in say. */
export { settings } from './settings.ts';
export { start } from './start.ts';
