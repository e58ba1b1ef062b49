export type { News, NoticeCause } from './cause.ts';
export {
  type DressedLetter,
  dressLetter,
  type Envelope,
  type Layout,
  MARK,
  pieceOf,
  SLOTS_OF_LAYOUT,
  subjectLine,
} from './dress.ts';
export { enoughFor, type GroupCount, type GroupValue, groupsIn, isCrossed, type OfGroup } from './groups.ts';
export { isAbout, type Moved, type Written, writtenWith } from './happens.ts';
export { HEARD, type Heard } from './heard.ts';
export {
  afterQuiet,
  CHOICES,
  type Choice,
  type DeskHearing,
  type DeskWay,
  departureAt,
  type Going,
  goingOf,
  type Hearing,
  heardAs,
  heardBy,
  NEW_HEARING,
  nextDigest,
  USUAL_HEARING,
  WAYS,
  type Way,
  wayOf,
  waysFor,
} from './hearing.ts';
export {
  draftConfirmation,
  draftDigest,
  draftDuty,
  draftGoingOn,
  draftInvitation,
  draftNotice,
  draftPlaceFree,
  draftReport,
  draftReset,
  draftSignIn,
  draftTest,
  draftToFillIn,
  type Facts,
  inOwnWords,
  type Letter,
  type LetterItem,
  type NoticeContext,
  type NoticeEvent,
  spokenLetter,
  type ToFillIn,
} from './letter.ts';
export { EMAIL_STATES, type EmailState, emailStateInWords, SENT_STATES, type SentState } from './state.ts';
export { textMessage, textNumber } from './textMessage.ts';
