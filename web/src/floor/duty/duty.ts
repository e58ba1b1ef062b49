import type { AnswerOf } from '@tolvek/contract';
import { spanOn } from '../../ui/dutyWeeks.ts';
import { say } from '../../wire/words.ts';

/** Who is on duty, as the page of it is told. */
export type Duty = AnswerOf<'duty'>;
export type RosterTold = Duty['rosters'][number];

/** From when to when (ISO 8601) something is, on the clock of its roster. */
export function fromTo({ from, to }: { readonly from: string; readonly to: string }, zone: string): string {
  const { isOneDay, ...span } = spanOn(Date.parse(from), Date.parse(to), zone);
  return say(isOneDay ? 'rosters:fromToDay' : 'rosters:fromTo', span);
}
