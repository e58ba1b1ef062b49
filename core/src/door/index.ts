export { type Admission, admit, type Door } from './admit.ts';
export { CONTACT_LABELS, type ContactAnswer, contactProblems, isMailAddress } from './contact.ts';
