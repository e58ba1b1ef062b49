/** What the Floor says besides. */
export { access } from './access.ts';
export { course } from './course.ts';
export { deletion } from './deletion.ts';
export { floor } from './floor.ts';
export { hearing } from './hearing.ts';
export { history } from './history.ts';
export { incoming } from './incoming.ts';
export { mailroom } from './mailroom.ts';
export { moves } from './moves.ts';
export { priorities } from './priorities.ts';
export { reasons } from './reasons.ts';
export { rights } from './rights.ts';
export { share } from './share.ts';
export { shared } from './shared.ts';
export { sheet } from './sheet.ts';
export { troubles } from './troubles.ts';
export { work } from './work.ts';
