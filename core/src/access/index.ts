export { type Access, accessTo, hasToDoWith, planned, type Relation } from './accessTo.ts';
export { accessAsking, levelsAsking, momentArriving, speaksToAskers } from './asking.ts';
export {
  type Circumstance,
  circumstancesOf,
  hangs,
  type KnownCircumstance,
  levelIn,
  ORDINARY,
  type RequestMoment,
} from './circumstance.ts';
export {
  classesOf,
  classInWords,
  classTold,
  moversNamed,
  type ViewerClass,
  waysToStand,
  wordsTold,
} from './classes.ts';
export {
  asksOnlyWritten,
  type ConditionProblem,
  conditionHolds,
  conditionProblems,
  exceptionScope,
  readerScope,
} from './condition.ts';
export { type FlowInput, type Leak, leaksOf } from './flow.ts';
export { type LevelOver, levelsOver, type Over } from './levelsOver.ts';
export { type MayAsk, mayAsk } from './mayAsk.ts';
export { Origins, type Step } from './origins.ts';
export {
  ACTIVITIES,
  type AccessLevel,
  type AccessPlan,
  type AccessRule,
  type Activity,
  type BaseLevels,
  type Deciding,
  type Disclosure,
  type Doing,
  isPlaced,
  type OutsideLevels,
  outsideOf,
  type PlanRules,
  placedByName,
  RANK,
  type RequestReader,
  type RuleException,
  rulesAmong,
  rulesOf,
  USUAL_BASE,
  USUAL_OUTSIDE,
} from './plan.ts';
export { type LevelChange, levelChanges, openedBy, type RuleChanges, ruleChanges } from './planChange.ts';
export { type Concerned, type Protections, planEffect } from './planEffect.ts';
export { projectionFor } from './projection.ts';
export { protect } from './protect.ts';
export type { Protection } from './protection.ts';
export {
  type CardFact,
  type CardReading,
  cardOf,
  labelOf,
  type OfferCard,
  type Referred,
  type RevealedFacts,
  readForCard,
  revealReferred,
} from './referred.ts';
export {
  type AskedAlike,
  deskRelation,
  gather,
  mayDo,
  type RequestParties,
  readersMeaning,
  readsAlso,
  relationsTo,
  relationTo,
} from './relation.ts';
export { isRestricted, openFields } from './restricted.ts';
export type {
  Revealed,
  ValueChange,
  VisibleChange,
  VisibleColumn,
  VisibleField,
  VisibleLines,
  VisibleReason,
  VisibleValues,
} from './revealed.ts';
export { isSharedTo, SHARED_FACTS, SHARED_READER, type SharedFact, type SharedResult } from './sharedResult.ts';
export { type Guard, type Read, type Readers, SINKS, type Sink, type SinkKind } from './sinks.ts';
export { type Purpose, prepareAccess, type Reading, type Situation } from './situation.ts';
