export type { Change } from './change.ts';
export {
  Forecast,
  fewerLate,
  LIKELY,
  LONGER,
  LOOKS_AHEAD,
  type TeamNow,
  type Tried,
} from './forecast.ts';
export { LEARNS_FROM, type Pace } from './learn.ts';
export {
  type Away,
  type Crew,
  type DeskPast,
  type Life,
  type LifeEvent,
  PLACES,
  type Place,
  type Promised,
  type Rostered,
  type Stretch,
  stretchesOf,
  type Told,
} from './life.ts';
export type { Outlook } from './outlook.ts';
export { changeInWords, type ForecastNames, whyLate } from './reasons.ts';
export { forecastPast, type Score, type Scored, scoreOf } from './score.ts';
