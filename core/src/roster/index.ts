export { changedDuties, type DutyChange } from './changes.ts';
export { type DayOf, weeksFrom } from './days.ts';
export { AHEAD, dutiesBetween, momentOf, nextOnDuty, onDutyAt, peopleOn } from './duties.ts';
export { type Gap, gapsBetween, heldDuties, type Presence } from './gaps.ts';
export { asOther, withoutPerson } from './leaving.ts';
export {
  type Duty,
  HANDS_OVER,
  type HandsOver,
  MOST_IN_TURN,
  MOST_SHIFTS,
  MOST_SWAPS,
  NEEDED,
  type Needed,
  type Roster,
  type Shift,
  type Swap,
} from './roster.ts';
export { ROSTER, type RosterSurroundings } from './rosterDesign.ts';
