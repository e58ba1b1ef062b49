/** How long a piece of work may hold the thread before others have their turn, ms. */
const A_TURN = 4;
/** Callers in a row, when long work waits as well: it goes on under any load. */
const CALLERS_IN_A_ROW = 3;

type Waiting = () => void;
const callers: Waiting[] = [];
const longWork: Waiting[] = [];
let isAsked = false;
let inARow = 0;

/**
 * A turn on the thread that answers: one caller or one piece of long work each time round, so that
 * timers, streams and letters never wait for more than one of them.
 */
export const aTurn = (whose: 'caller' | 'long work'): Promise<void> =>
  new Promise((begin) => {
    (whose === 'caller' ? callers : longWork).push(begin);
    ask();
  });

function ask(): void {
  if (isAsked || callers.length + longWork.length === 0) return;
  isAsked = true;
  setImmediate(() => {
    isAsked = false;
    const isForLong = longWork.length > 0 && (callers.length === 0 || inARow >= CALLERS_IN_A_ROW);
    inARow = isForLong ? 0 : inARow + 1;
    (isForLong ? longWork : callers).shift()?.();
    // Asked for from within, the next turn comes the next time round.
    ask();
  });
}

/** Goes through many things without holding up the thread that answers: some of them each turn. */
export async function* inTurns<T>(items: Iterable<T>): AsyncGenerator<T> {
  let began = performance.now();
  for (const item of items) {
    yield item;
    if (performance.now() - began < A_TURN) continue;
    await aTurn('long work');
    began = performance.now();
  }
}

/** How long what is stored together may take, ms, and how many things that is at most. */
export const A_COMMIT = 6;
const MOST_TOGETHER = 50;

/**
 * Things that are stored together, a few at a time, with turns for others between them: more of them while storing
 * goes fast, fewer when it takes longer than nobody notices.
 */
export async function* inGroups<T>(items: Iterable<T>): AsyncGenerator<readonly T[]> {
  let size = 4;
  let group: T[] = [];
  for (const item of items) {
    group.push(item);
    if (group.length < size) continue;
    const began = performance.now();
    yield group;
    const fits = (size * A_COMMIT) / Math.max(0.1, performance.now() - began);
    size = Math.max(1, Math.min(MOST_TOGETHER, size * 2, Math.floor(fits)));
    group = [];
    await aTurn('long work');
  }
  if (group.length > 0) yield group;
}
