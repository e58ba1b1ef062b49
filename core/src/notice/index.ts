export type { News, NoticeCause } from './cause.ts';
export { type DressedLetter, dressLetter, subjectLine } from './dress.ts';
export {
  draftConfirmation,
  draftGoingOn,
  draftInvitation,
  draftNotice,
  draftPlaceFree,
  draftReset,
  draftSignIn,
  draftTest,
  draftToFillIn,
  type Letter,
  type NoticeContext,
  type NoticeEvent,
  spokenLetter,
  type ToFillIn,
} from './letter.ts';
