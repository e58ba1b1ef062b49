export { type Admission, admit, type Comer, isMeant, type NotAdmitted } from './admit.ts';
export { consentProblems } from './consent.ts';
export { CONTACT_LABELS, type ContactAnswer, contactProblems, isContactField } from './contact.ts';
export {
  AGAIN,
  type Again,
  type Coming,
  type Consent,
  countsAnew,
  countsSince,
  type DoorDesign,
  type DoorLimit,
  type DoorWords,
  doorAt,
  finishBy,
  kindOfProof,
  mayStill,
  newDoor,
  PROVING,
  type Proof,
  type Proving,
  placesLeft,
  placesToOffer,
  type Until,
} from './door.ts';
export { DOOR } from './doorDesign.ts';
export { answersIn, canComeByLink, linkEnding, saysWhose } from './prefill.ts';
export { doorIn, textsOfDoor } from './translated.ts';
export { doorInWords } from './words.ts';
