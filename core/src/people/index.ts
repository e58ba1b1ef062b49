export { type Absence, absenceInWords, awayOn, lastsOn, type StandIn, standInFor, standInsOn } from './absence.ts';
export {
  type Audience,
  asksRights,
  audienceInWords,
  type Belonging,
  belongs,
  CONTACT,
  groupsIn,
  inPlace,
  isForAll,
  isGroup,
  isRelation,
  NO_REQUEST,
  peopleIn,
  profileConditionsIn,
  RELATION_WORDS,
  REQUESTER,
  type Somebody,
  STRANGER,
  type Stands,
  type Viewer,
  whyBelongs,
  withoutPeople,
  wordInWords,
  wordsIn,
} from './audience.ts';
export { type Access, type AuditLine, accessAt, holdersIn, isToldHere, viewersIn } from './audit.ts';
export {
  daysInWords,
  type GroundChange,
  type GroundField,
  type GroundMember,
  type GroundNames,
  groundChangeInWords,
  mayBeUndone,
  ruleInWords,
  undoingOf,
} from './groundChange.ts';
export { circleBy, type Entry, groupsOn, holdsOn, type WayIn, waysInto } from './groups.ts';
export { type Holder, holderOf, holdersOf, seatsHeldBy, wordOf } from './holders.ts';
export {
  calledApart,
  type Doubt,
  type KnownRecord,
  type Match,
  nameCompared,
  plainLetters,
  prepareMatching,
  toldApart,
} from './match.ts';
export { PASSWORD_LENGTH, passwordProblem } from './password.ts';
export {
  DESK_RIGHTS,
  type DeskRight,
  FOR_EVERYONE,
  includesRight,
  isRight,
  may,
  mayWith,
  PACKAGES,
  type PackageName,
  packageOf,
  REACHES,
  REGISTER_RIGHTS,
  REQUEST_RIGHTS,
  type Reach,
  type RequestRight,
  RIGHTS,
  type Right,
  reachesOf,
  rightInWords,
  type Standing,
} from './rights.ts';
export {
  configuresAnything,
  type Difference,
  type Grant,
  grantsAt,
  inRegister,
  mayAnywhere,
  type RegisterRights,
  rightsAt,
  worksInWorkshop,
} from './rightsAt.ts';
export { asEntries, inOrder, isRuledIn, type RuledGroup } from './ruled.ts';
export { wayBack } from './wayBack.ts';
