export { type Admission, admit, type Door } from './admit.ts';
