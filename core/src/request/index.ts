export {
  type AgreedThen,
  type ChangeNames,
  changeInWords,
  type Happening,
  priorityInWords,
  type RequestChange,
  type SeatGiven,
  type Through,
  type Why,
} from './change.ts';
