import { type Said, said } from '@tolvek/words';
import type { HandlerRule } from '../assignment/index.ts';
import { MOST_WORKING_DAYS, type RowLength } from '../deadline/index.ts';
import type { Holder } from '../people/index.ts';
import type { Priority } from '../register/index.ts';

/** Who follows what a row takes: a group, a person, or whoever an answer names. */
export type FollowerPlan = Holder | { readonly field: string };

/** What a table says of a request. */
export interface RoutingSaid {
  /** Key of the team's group. */
  readonly team: string;
  readonly priority: Priority;
  /** Working days until the request should be finished, 0 to 250. */
  readonly workingDays: number;
  /** The id of the path by which it is decided; null where nobody decides. */
  readonly path: string | null;
  /** How its handler is found; the team takes it when nothing is said. */
  readonly handler?: HandlerRule | undefined;
  /** The key of the stage at which work on it begins; the first of the register when nothing is said. */
  readonly stage?: string | undefined;
  /** How long deadlines besides the finish are, where it is not as they say themselves. */
  readonly deadlines?: readonly RowLength[] | undefined;
  /** Who follows it from its arrival. */
  readonly followers?: readonly FollowerPlan[] | undefined;
}

/** What a row says one way, or leaves to later rows. Followers are no such thing: no row stands in the way of another’s. */
export const LEAVABLE = ['team', 'priority', 'workingDays', 'path', 'handler', 'stage'] as const;
/** The same, with what a row leaves to later ones by naming none of it: how long other deadlines are. */
export const OUTCOMES = [...LEAVABLE, 'deadlines'] as const;
export type LeavableName = (typeof LEAVABLE)[number];
export type OutcomeName = (typeof OUTCOMES)[number];

/** What rows say, as it is called. */
export const OUTCOME_WORDS = Object.fromEntries(
  OUTCOMES.map((name) => [name, said(`reasons:outcome.${name}`)]),
) as Readonly<Record<OutcomeName, Said>>;

/** What of it can be computed for each request. */
export const COMPUTED = ['team', 'priority', 'workingDays', 'path', 'stage'] as const;
export type ComputedName = (typeof COMPUTED)[number];
export const isComputed = (name: string | null): name is ComputedName => COMPUTED.some((each) => each === name);
/** By what it is computed, in FEEL. */
export type OutcomeFormulas = Partial<Readonly<Record<ComputedName, string>>>;

export interface RoutingOutcome extends RoutingSaid {
  /** Where one says nothing of a request, what stands beside it counts. */
  readonly formulas?: OutcomeFormulas | undefined;
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
  /** What it leaves to later rows, in a table where each thing is said for itself. */
  readonly leaves?: readonly LeavableName[] | undefined;
}

/**
 * How the rows of a table go together: the first that holds says everything, each thing is said by the first row that holds
 * and says it, or only one row may hold.
 */
export const HITS = ['first', 'each', 'only'] as const;
export type Hits = (typeof HITS)[number];

/**
 * A decision table with a last row for everything else: of hit policy FIRST, or UNIQUE where only one may hold (DMN 1.5,
 * 8.2.10). Where each thing is said for itself, it is as many such tables as there are things, side by side, and followers
 * are collected from every row that holds (COLLECT).
 */
export interface RoutingTable {
  /** “first” when nothing is said. */
  readonly hits?: Hits | undefined;
  /** The fields in which whoever asks says how urgent it is and until when: their wish stands beside what the desk sets. */
  readonly wishes?: { readonly priority?: string | undefined; readonly due?: string | undefined } | undefined;
  readonly columns: readonly RoutingColumn[];
  readonly rows: readonly RoutingRow[];
  readonly otherwise: RoutingOutcome;
}

/** Of how many rows and columns a table consists at most, and of how many signs a note or a label. */
export const MOST = { rows: 1_000, columns: 40, signs: 200 } as const;

/** Whether so many working days can be promised. */
export const isPromise = (days: number): boolean => Number.isInteger(days) && days >= 0 && days <= MOST_WORKING_DAYS;

type Rows = Pick<RoutingTable, 'rows' | 'otherwise' | 'hits'>;

export const hitsOf = ({ hits = 'first' }: Pick<RoutingTable, 'hits'>): Hits => hits;

/** What a row leaves to later ones by name. */
export const leavesOf = (
  table: Pick<RoutingTable, 'hits'>,
  { leaves = [] }: Pick<RoutingRow, 'leaves'>,
): readonly LeavableName[] => (hitsOf(table) === 'each' ? leaves : []);

/** What a row leaves to later ones; the last one leaves nothing but what nobody says. */
export const leftBy = (
  table: Pick<RoutingTable, 'hits'>,
  row: Pick<RoutingRow, 'leaves' | 'outcome'>,
): readonly OutcomeName[] => [
  ...leavesOf(table, row),
  ...(hitsOf(table) === 'each' && (row.outcome.deadlines ?? []).length === 0 ? (['deadlines'] as const) : []),
];

/** A row of a table, the last one among them: what it says, and what it leaves to later rows. */
export interface SayingRow {
  readonly id: string;
  readonly outcome: RoutingOutcome;
  readonly leaves: readonly OutcomeName[];
}

/** All rows of a table; the last is called `otherwise`. */
export const allRows = (table: Rows): readonly SayingRow[] => [
  ...table.rows.map((row) => ({ id: row.id, outcome: row.outcome, leaves: leftBy(table, row) })),
  { id: 'otherwise', outcome: table.otherwise, leaves: leftBy(table, { outcome: table.otherwise }) },
];

/** The outcomes of the rows that say something, the last included. */
export const outcomesSaying = (table: Rows, name: OutcomeName): readonly RoutingOutcome[] =>
  allRows(table).flatMap(({ outcome, leaves }) => (leaves.includes(name) ? [] : [outcome]));

/** How rows find handlers. */
export const handlersIn = (table: Rows): readonly HandlerRule[] =>
  outcomesSaying(table, 'handler').flatMap(({ handler }) => handler ?? []);

/** What whoever asks may wish for. */
export const WISHES = ['priority', 'due'] as const;

/** Fields in which wishes are said, by their keys. */
export const wishesIn = ({ wishes = {} }: Pick<RoutingTable, 'wishes'>): readonly string[] =>
  WISHES.flatMap((wish) => wishes[wish] ?? []);

/** Who follows by any row. */
export const followersIn = (table: Rows): readonly FollowerPlan[] =>
  allRows(table).flatMap(({ outcome }) => outcome.followers ?? []);

/** What rows say of deadlines besides the finish. */
export const lengthsIn = (table: Rows): readonly RowLength[] =>
  allRows(table).flatMap(({ outcome }) => outcome.deadlines ?? []);

/** The formula of what a row says of a deadline, if it says that so. */
export const lengthFormula = ({ length }: RowLength): string | null =>
  length?.by === 'formula' ? length.formula : null;

/** The formulas of a row by what they compute, as far as the row says it. */
export const formulasOf = ({ outcome, leaves }: SayingRow): readonly (readonly [ComputedName, string])[] =>
  COMPUTED.flatMap((name) => {
    const text = outcome.formulas?.[name];
    return text === undefined || leaves.includes(name) ? [] : [[name, text] as const];
  });

/** An outcome with a formula for something, or with none of it: then what stands beside it counts. */
export function withFormula(
  { formulas, ...outcome }: RoutingOutcome,
  name: ComputedName,
  text: string | null,
): RoutingOutcome {
  const { [name]: _, ...others } = formulas ?? {};
  const all = text === null ? others : { ...others, [name]: text };
  return Object.keys(all).length > 0 ? { ...outcome, formulas: all } : outcome;
}

/** Every formula of a table. */
export const formulasIn = (table: Rows): readonly string[] => [
  ...allRows(table).flatMap((row) => formulasOf(row).map(([, text]) => text)),
  ...lengthsIn(table).flatMap((each) => lengthFormula(each) ?? []),
];

/**
 * What a row comes to, by its place: 1 for the first, one more than there are rows for the last one. What it leaves to later
 * rows is as the last one says it.
 */
export function outcomeOfRow(table: Rows, row: number): RoutingOutcome | undefined {
  const found = allRows(table)[row - 1];
  return (
    found && { ...found.outcome, ...Object.fromEntries(found.leaves.map((name) => [name, table.otherwise[name]])) }
  );
}
