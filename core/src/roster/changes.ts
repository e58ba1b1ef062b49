import type { Duty } from './roster.ts';

/** A time (epoch ms) in which others are on duty than before. */
export interface DutyChange {
  readonly from: number;
  readonly to: number;
  readonly before: readonly string[];
  readonly after: readonly string[];
}

/** When others are on duty than before, in order; a change goes on as long as the same people are concerned. */
export function changedDuties(before: readonly Duty[], after: readonly Duty[]): readonly DutyChange[] {
  const edges = [...new Set([...before, ...after].flatMap(({ from, to }) => [from, to]))].sort((a, b) => a - b);
  const on = (duties: readonly Duty[], at: number): readonly string[] =>
    [...new Set(duties.flatMap(({ person, from, to }) => (from <= at && to > at ? [person] : [])))].sort();
  const changes: DutyChange[] = [];
  for (const [place, from] of edges.slice(0, -1).entries()) {
    const [was, is] = [on(before, from), on(after, from)];
    if (`${was}` === `${is}`) continue;
    const to = edges[place + 1] ?? from;
    const last = changes.at(-1);
    if (last && last.to === from && `${last.before}` === `${was}` && `${last.after}` === `${is}`)
      changes[changes.length - 1] = { ...last, to };
    else changes.push({ from, to, before: was, after: is });
  }
  return changes;
}
