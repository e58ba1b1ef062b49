import { setImmediate as nextTurn } from 'node:timers/promises';

/** Pieces of work that are done before others have their turn. */
const A_TURN = 10;

/** Goes through many things without holding up the thread that answers: a few of them each turn. */
export async function* inTurns<T>(items: Iterable<T>): AsyncGenerator<T> {
  let done = 0;
  for (const item of items) {
    yield item;
    done += 1;
    if (done % A_TURN === 0) await nextTurn();
  }
}

/** Things in groups of a turn each, for work that is stored group by group. */
export async function* inGroups<T>(items: readonly T[], size = A_TURN): AsyncGenerator<readonly T[]> {
  for (let from = 0; from < items.length; from += size) {
    yield items.slice(from, from + size);
    await nextTurn();
  }
}
