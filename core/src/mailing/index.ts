export { askedAbout, canSay, type KnownAnswer } from './given.ts';
export { type JoinedAnswer, type Mean, meansOf } from './joined.ts';
export {
  type About,
  ITSELF,
  type MailingDesign,
  NAMED_RELATIONS,
  newMailing,
  type Recipients,
  type Reminder,
  type Topic,
  type When,
} from './mailing.ts';
export { type AroundMailing, MAILING } from './mailingDesign.ts';
export {
  type AboutRequest,
  isRecipient,
  type NotSent,
  type Owed,
  owedBy,
  type Recipient,
  type SentOut,
} from './owed.ts';
export { dueOf, goesAfter, isLate, nextGoing, nextReminder, type OwedState } from './times.ts';
export { mailingText } from './translated.ts';
export { type MailingNames, mailingInWords } from './words.ts';
