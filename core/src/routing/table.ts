import type { HandlerRule } from '../assignment/index.ts';
import { MOST_WORKING_DAYS } from '../deadline/index.ts';
import type { Priority } from '../register/index.ts';

export interface RoutingOutcome {
  /** Key of the team's group. */
  readonly team: string;
  readonly priority: Priority;
  /** Working days until the request should be finished, 0 to 250. */
  readonly workingDays: number;
  /** The id of the path by which it is decided; null where nobody decides. */
  readonly path: string | null;
  /** How its handler is found; the team takes it when nothing is said. */
  readonly handler?: HandlerRule | undefined;
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

/** Of how many rows and columns a table consists at most, and of how many signs a note or a label. */
export const MOST = { rows: 1_000, columns: 40, signs: 200 } as const;

/** Whether so many working days can be promised. */
export const isPromise = (days: number): boolean => Number.isInteger(days) && days >= 0 && days <= MOST_WORKING_DAYS;

type Rows = Pick<RoutingTable, 'rows' | 'otherwise'>;

/** All rows of a table by id with what they decide; the last is called `otherwise`. */
export const allRows = ({ rows, otherwise }: Rows): readonly Pick<RoutingRow, 'id' | 'outcome'>[] => [
  ...rows,
  { id: 'otherwise', outcome: otherwise },
];

/** The outcomes of all rows, the last included. */
export const outcomesOf = (table: Rows): readonly RoutingOutcome[] => allRows(table).map(({ outcome }) => outcome);

/** What a row comes to, by its place: 1 for the first, one more than there are rows for the last one. */
export const outcomeOfRow = (table: Rows, row: number): RoutingOutcome | undefined => outcomesOf(table)[row - 1];

/** The ids of the paths that rows of a table choose. */
export const pathsChosen = (table: Rows): ReadonlySet<string> =>
  new Set(outcomesOf(table).flatMap(({ path }) => path ?? []));
