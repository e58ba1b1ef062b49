import type { AnswerOf } from '@tolvek/contract';
import { Problem } from '../platform/problem.ts';
import { inTurns } from '../platform/turns.ts';

/**
 * Does something to each of several requests, with a turn for others before the next: nobody waits for all of them. What
 * can’t be done stands in the way of no other.
 *
 * @returns the numbers of those, each with the reason
 */
export async function eachByItself<Item>(
  items: readonly Item[],
  numberOf: (item: Item) => string,
  does: (item: Item) => void,
): Promise<AnswerOf<'writeMany'>['refused']> {
  const problems: AnswerOf<'writeMany'>['refused'] = [];
  for await (const item of inTurns(items)) {
    try {
      does(item);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      problems.push({ number: numberOf(item), why: error.said.happened });
    }
  }
  return problems;
}
