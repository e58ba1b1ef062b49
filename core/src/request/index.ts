export {
  type AgreedThen,
  type ChangeNames,
  changeInWords,
  type Happening,
  priorityInWords,
  type Rang,
  type RequestChange,
  type SeatGiven,
  type Through,
  type Why,
} from './change.ts';
