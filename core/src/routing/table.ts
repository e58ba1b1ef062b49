import type { Priority } from '../register/index.ts';

export interface RoutingOutcome {
  /** Key of the team's group. */
  readonly team: string;
  readonly priority: Priority;
  /** Working days until the request should be finished, 0 to 250. */
  readonly workingDays: number;
  readonly needsApproval: boolean;
}

export interface RoutingColumn {
  readonly id: string;
  readonly label: string;
  /** FEEL: what the cells of this column are tested against. */
  readonly input: string;
}

export interface RoutingRow {
  readonly id: string;
  /** Why this row is there; people read it when the row decides. */
  readonly note: string;
  /** Unary tests by column id; a missing or empty cell takes anything. */
  readonly cells: Readonly<Record<string, string>>;
  readonly outcome: RoutingOutcome;
}

/**
 * A decision table with hit policy “first” (DMN 1.5, 8.2.10) and a last row for everything else.
 */
export interface RoutingTable {
  readonly columns: readonly RoutingColumn[];
  readonly rows: readonly RoutingRow[];
  readonly otherwise: RoutingOutcome;
}
