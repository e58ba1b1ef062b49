export { analyseTable, type RowOverlap, type TableAnalysis, type WorkedCase } from './analyse.ts';
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
export { prepareRouting, type Routed, type Router, type RowReason } from './route.ts';
export {
  allRows,
  MOST as MOST_IN_TABLE,
  outcomeOfRow,
  outcomesOf,
  pathsChosen,
  type RoutingColumn,
  type RoutingOutcome,
  type RoutingRow,
  type RoutingTable,
} from './table.ts';
export { prepareWinner } from './winner.ts';
