export { type DressedLetter, dressLetter } from './dress.ts';
export { draftConfirmation, draftNotice, type Letter, type NoticeContext, type NoticeEvent } from './letter.ts';
