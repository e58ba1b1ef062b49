import { setImmediate as nextTurn } from 'node:timers/promises';

/** How long a piece of work may hold the thread before others have their turn, ms. */
const A_TURN = 5;

/** Goes through many things without holding up the thread that answers: some of them each turn. */
export async function* inTurns<T>(items: Iterable<T>): AsyncGenerator<T> {
  let began = performance.now();
  for (const item of items) {
    yield item;
    if (performance.now() - began < A_TURN) continue;
    await nextTurn();
    began = performance.now();
  }
}

/** Things that are stored together, a few at a time, with turns for others between them. */
export async function* inGroups<T>(items: readonly T[], size = 5): AsyncGenerator<readonly T[]> {
  for (let from = 0; from < items.length; from += size) {
    yield items.slice(from, from + size);
    await nextTurn();
  }
}
