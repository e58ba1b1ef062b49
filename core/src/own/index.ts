export { isOfEveryObject, own } from './own.ts';
