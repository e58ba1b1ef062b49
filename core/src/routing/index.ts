export { analyseTable, type RowOverlap, type TableAnalysis, type WorkedCase } from './analyse.ts';
export { prepareRouting, type Routed, type RowReason, routingFindings } from './route.ts';
export type { RoutingColumn, RoutingOutcome, RoutingRow, RoutingTable } from './table.ts';
