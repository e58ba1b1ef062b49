export { type Admission, admit, type Door } from './admit.ts';
export { CONTACT_LABELS, type ContactAnswer, contactProblems } from './contact.ts';
