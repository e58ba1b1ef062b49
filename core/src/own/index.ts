export { freshKey } from './freshKey.ts';
export { grouped } from './grouped.ts';
export { isOfEveryObject, own } from './own.ts';
export { isSame } from './same.ts';
