export { type Admission, admit, type Comer, type NotAdmitted } from './admit.ts';
export { CONTACT_LABELS, type ContactAnswer, contactProblems, isContactField } from './contact.ts';
export { countsSince, type DoorDesign, type DoorLimit, doorAt, kindOfProof, newDoor, type Proof } from './door.ts';
export { DOOR } from './doorDesign.ts';
export { doorInWords } from './words.ts';
