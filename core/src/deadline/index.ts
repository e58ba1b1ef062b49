export type { OpenHours, WorkingCalendar } from './calendar.ts';
export {
  type Deadline,
  type DeadlinePlan,
  type Fuse,
  fuseAt,
  isPaused,
  lengthInWords,
  type Pause,
  pauseDeadline,
  planDeadline,
  promiseInWords,
  resumeDeadline,
  type Timer,
  timersFor,
} from './deadline.ts';
export { addWorkingTime, dateAt, endOfDay, endOfWorkingDay, isOpen, momentInWords, NeverOpen, nextChange, subtractWorkingTime, workingTimeBetween } from './workingTime.ts';
