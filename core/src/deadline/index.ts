export {
  isClosedDay,
  type OpenHours,
  type OpenStretch,
  type SpecialDay,
  type WorkingCalendar,
  workingWeek,
} from './calendar.ts';
export { CALENDAR } from './calendarDesign.ts';
export { type Course, type CourseAsked, dueOf, prepareCourse, promisedBy, type Running } from './course.ts';
export {
  type Deadline,
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
  type Span,
  spanOf,
  type Timer,
  timersFor,
} from './deadline.ts';
export { dayBegins, type Period, periodAt } from './period.ts';
export {
  calendarFor,
  calendarsOf,
  type DeadlineBegin,
  type DeadlineEnd,
  type DeadlineLength,
  type DeadlinePlan,
  type DeadlineRule,
  type DeadlineStand,
  deadlinesIn,
  ESCALATION,
  FINISH,
  fieldsOfDeadlines,
  finishRule,
  formulasIn,
  groupsOfDeadlines,
  type Hearer,
  hangsOn,
  MOST_DEADLINES,
  MOST_RINGS,
  MOST_WORKING_DAYS,
  REMINDER,
  type Ring,
  type RingAct,
  rostersOfDeadlines,
  ruleOf,
  turnsWith,
  withFormulas,
} from './plan.ts';
export { type DayMark, type Scale, scaleOf } from './scale.ts';
export { union, within, without } from './stretches.ts';
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
export { deadlineName, doesInWords, hearerInWords, lengthInWords, type RingNames, ringInWords } from './words.ts';
export {
  addWorkingTime,
  endOfDay,
  endOfWorkingDay,
  isOpen,
  NeverOpen,
  nextChange,
  openBetween,
  reached,
  subtractWorkingTime,
  workingTimeBetween,
} from './workingTime.ts';
