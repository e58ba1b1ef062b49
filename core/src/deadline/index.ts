export { isClosedDay, type OpenHours, type SpecialDay, type WorkingCalendar, workingWeek } from './calendar.ts';
export { CALENDAR } from './calendarDesign.ts';
export {
  type Deadline,
  type DeadlinePlan,
  FINISH,
  type Fuse,
  fuseAt,
  isPaused,
  LONGEST_LENGTH,
  lengthOf,
  type Pause,
  type PlannedDeadline,
  pauseDeadline,
  planDeadline,
  promiseInWords,
  replanDeadline,
  resumeDeadline,
  type Timer,
  timersFor,
} from './deadline.ts';
export { dayBegins, type Period, periodAt } from './period.ts';
export {
  dateAt,
  dateInWords,
  dayInWords,
  instantsOf,
  isDate,
  isZone,
  momentInWords,
  wallClockAt,
} from './wallClock.ts';
export {
  addWorkingTime,
  endOfDay,
  endOfWorkingDay,
  isOpen,
  NeverOpen,
  nextChange,
  subtractWorkingTime,
  workingTimeBetween,
} from './workingTime.ts';
