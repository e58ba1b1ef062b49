export {
  type ChangeNames,
  changeInWords,
  type RequestChange,
  type RequestChangeKind,
  type Through,
  type Why,
} from './change.ts';
