export { isOfEveryObject, own } from './own.ts';
export { isSame } from './same.ts';
