import type { RowSpan } from '@tolvek/core/deadline';
import {
  type ComputedName,
  type FollowerPlan,
  type Hits,
  isComputed,
  LEAVABLE,
  type LeavableName,
  type RoutingOutcome,
  type RoutingTable,
  type WISHES,
  withFormula,
} from '@tolvek/core/routing';

/** What a row sets, and what it leaves to later ones. */
export interface RowSaid {
  readonly outcome: RoutingOutcome;
  readonly leaves: readonly LeavableName[];
}

/** Where something that a row sets comes from: what stands in it, a formula, or a later row. */
export type How = 'here' | 'formula' | 'later';

export function howSet({ outcome, leaves }: RowSaid, name: LeavableName): How {
  if (leaves.includes(name)) return 'later';
  return isComputed(name) && outcome.formulas?.[name] !== undefined ? 'formula' : 'here';
}

/** What a formula gives first: what stood in the row. */
export function firstFormula(outcome: RoutingOutcome, name: ComputedName): string {
  const value = outcome[name];
  return value === null || value === undefined ? 'null' : JSON.stringify(value);
}

/** A row in which something is set otherwise; what stood in it is kept for when a formula gives nothing. */
export function setHow(row: RowSaid, name: LeavableName, how: How): RowSaid {
  const others = row.leaves.filter((each) => each !== name);
  const leaves = how === 'later' ? LEAVABLE.filter((each) => each === name || others.includes(each)) : others;
  if (!isComputed(name)) return { ...row, leaves };
  const text = how === 'formula' ? (row.outcome.formulas?.[name] ?? firstFormula(row.outcome, name)) : null;
  // What is left to later rows is found again as it was.
  return { leaves, outcome: how === 'later' ? row.outcome : withFormula(row.outcome, name, text) };
}

/** An outcome whose work begins at a stage; the first of the register where none is named. */
export function beginningAt({ stage: _, ...outcome }: RoutingOutcome, stage: string | null): RoutingOutcome {
  return stage === null ? outcome : { ...outcome, stage };
}

/** An outcome that some follow. */
export function followedBy(
  { followers: _, ...outcome }: RoutingOutcome,
  followers: readonly FollowerPlan[],
): RoutingOutcome {
  return followers.length > 0 ? { ...outcome, followers } : outcome;
}

/** An outcome that says of a deadline how long it is; `undefined`: as that says itself, `null`: that there is none. */
export function lastingFor(
  { deadlines = [], ...outcome }: RoutingOutcome,
  deadline: string,
  length: RowSpan | null | undefined,
): RoutingOutcome {
  const said = length === undefined ? [] : [{ deadline, length }];
  const at = deadlines.findIndex((each) => each.deadline === deadline);
  const all = at < 0 ? [...deadlines, ...said] : deadlines.toSpliced(at, 1, ...said);
  return all.length > 0 ? { ...outcome, deadlines: all } : outcome;
}

/** A table whose rows go together otherwise. */
export function goingTogether({ hits: _, ...table }: RoutingTable, hits: Hits): RoutingTable {
  return hits === 'first' ? table : { ...table, hits };
}

/** A table in which a wish is said in a field; in none. */
export function wishedIn(
  { wishes = {}, ...table }: RoutingTable,
  wish: (typeof WISHES)[number],
  field: string | null,
): RoutingTable {
  const { [wish]: _, ...others } = wishes;
  const all = field === null ? others : { ...others, [wish]: field };
  return Object.keys(all).length > 0 ? { ...table, wishes: all } : table;
}

/** A row with what it sets: nothing is said of later rows where nothing is left to them. */
export const rowWith = <Row extends { readonly leaves?: readonly LeavableName[] | undefined }>(
  { leaves: _, ...row }: Row,
  { outcome, leaves }: RowSaid,
) => ({ ...row, outcome, ...(leaves.length > 0 ? { leaves } : {}) });
