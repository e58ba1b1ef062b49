export { type SheetTold, sheetIn } from './sheetIn.ts';
