/** What every page may say, and what a requester reads. */
export { actions } from './actions.ts';
export { answers } from './answers.ts';
export { common } from './common.ts';
export { deadlines } from './deadlines.ts';
export { desk } from './desk.ts';
export { doors } from './doors.ts';
export { hops } from './hops.ts';
export { people } from './people.ts';
export { refusals } from './refusals.ts';
export { sharedPage } from './sharedPage.ts';
export { things } from './things.ts';
export { values } from './values.ts';
export { wire } from './wire.ts';
