export { analyseTable, type RowOverlap, type TableAnalysis, type WorkedCase } from './analyse.ts';
export { rowChanges } from './compare.ts';
export { allThatMayBe, mayBe, resultsWritten, withResults } from './computed.ts';
export {
  type DmnGround,
  type DmnInput,
  type DmnOutput,
  type DmnRead,
  type DmnRule,
  type DmnTable,
  dmnOf,
  namesOf,
  routingOf,
} from './dmn.ts';
export { routingFindings } from './findings.ts';
export { type KeptRouting, keptRouting, LONGEST_KEPT, routedAgain } from './kept.ts';
export { type Missed, missedOptions } from './missed.ts';
export {
  prepareRouting,
  type Routed,
  type Router,
  type RowReason,
  rowsSaying,
  type SaidBy,
  saidThen,
} from './route.ts';
export {
  allRows,
  COMPUTED,
  type ComputedName,
  type FollowerPlan,
  followersIn,
  formulasIn,
  formulasOf,
  HITS,
  type Hits,
  handlersIn,
  hitsOf,
  isComputed,
  LEAVABLE,
  type LeavableName,
  leavesOf,
  leftBy,
  lengthFormula,
  lengthsIn,
  MOST as MOST_IN_TABLE,
  OUTCOME_WORDS,
  OUTCOMES,
  type OutcomeFormulas,
  type OutcomeName,
  outcomeOfRow,
  outcomesSaying,
  type RoutingColumn,
  type RoutingOutcome,
  type RoutingRow,
  type RoutingSaid,
  type RoutingTable,
  type SayingRow,
  WISHES,
  wishesIn,
  withFormula,
} from './table.ts';
export { prepareWinner } from './winner.ts';
