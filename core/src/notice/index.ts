export { type DressedLetter, dressLetter } from './dress.ts';
export {
  draftConfirmation,
  draftGoingOn,
  draftNotice,
  type Letter,
  type NoticeContext,
  type NoticeEvent,
} from './letter.ts';
