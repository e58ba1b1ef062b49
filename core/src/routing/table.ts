import type { Priority } from '../register/index.ts';

export interface RoutingOutcome {
  /** Key of the team's group. */
  readonly team: string;
  readonly priority: Priority;
  /** Working days until the request should be finished, 0 to 250. */
  readonly workingDays: number;
  /** The id of the path by which it is decided; null where nobody decides. */
  readonly path: string | null;
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

/** The ids of the paths that rows of a table choose. */
export const pathsChosen = ({ rows, otherwise }: Pick<RoutingTable, 'rows' | 'otherwise'>): ReadonlySet<string> =>
  new Set([...rows.map(({ outcome }) => outcome.path), otherwise.path].flatMap((path) => path ?? []));
