export {
  type ChangeNames,
  changeInWords,
  type Happening,
  type RequestChange,
  type Through,
  type Why,
} from './change.ts';
