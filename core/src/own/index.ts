export { freshKey } from './freshKey.ts';
export { isOfEveryObject, own } from './own.ts';
export { isSame } from './same.ts';
