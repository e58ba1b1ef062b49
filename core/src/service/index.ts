export { Hours } from './hours.ts';
export {
  BEHIND,
  type Behind,
  type Between,
  isBehind,
  type Line,
  lineOf,
  SERVED_BY,
  type Served,
  type Spread,
} from './lines.ts';
export { type Course, type Standing, type Times, timesOf } from './times.ts';
