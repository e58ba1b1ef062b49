import type { Life, Place } from './life.ts';

/** So many in hand or more, and twice as many as others of the team: that is much. */
const MUCH = 4;

/** How many requests people have in hand, at some places. */
export function inHand(lives: readonly Life[], at: readonly Place[] = ['working']): ReadonlyMap<string, number> {
  const has = new Map<string, number>();
  for (const life of lives) {
    const last = life.finished === null ? life.stretches.at(-1) : undefined;
    if (last && at.includes(last.place) && last.handler !== null)
      has.set(last.handler, (has.get(last.handler) ?? 0) + 1);
  }
  return has;
}

/** Whether somebody has far more in hand than the others of a team. */
export function hasMuch(person: string, members: readonly string[], has: ReadonlyMap<string, number>): boolean {
  const others = members.filter((each) => each !== person);
  if (others.length === 0) return false;
  const usual = others.reduce((sum, each) => sum + (has.get(each) ?? 0), 0) / others.length;
  return (has.get(person) ?? 0) >= MUCH && (has.get(person) ?? 0) >= 2 * usual;
}
