/** How long a piece of work may hold the thread before others have their turn, ms. */
const A_TURN = 4;
/** Callers in a row, when long work waits as well: it goes on under any load. */
const CALLERS_IN_A_ROW = 4;
/** How long an answer may take until it has left the house, ms: it is packed beside this thread, and written by it. */
const ON_ITS_WAY = 3;
/** Pieces of long work in a row, when what can wait does as well: letters about a lot of it go on, and hold it up little. */
const WORK_IN_A_ROW = 8;

type Waiting = () => void;
const callers: Waiting[] = [];
const longWork: Waiting[] = [];
const canWait: Waiting[] = [];
let isAsked = false;
let inARow = 0;
let workInARow = 0;
/** Answers that are on their way out, and when the last one was given. */
let leaving = 0;
let lastGiven = 0;

/**
 * A turn on the thread that answers: one caller or one piece of long work each time round, so that
 * timers and streams never wait for more than one of them; what can wait has one when nobody else does, and now and then.
 */
export const aTurn = (whose: keyof typeof WAITING): Promise<void> =>
  new Promise((begin) => {
    WAITING[whose].push(begin);
    ask();
  });

const WAITING = { caller: callers, 'long work': longWork, 'what can wait': canWait } as const;

function ask(): void {
  if (isAsked || callers.length + longWork.length + canWait.length === 0) return;
  isAsked = true;
  setImmediate(() => {
    isAsked = false;
    const callersHad = inARow >= CALLERS_IN_A_ROW;
    const isForWork = longWork.length + canWait.length > 0 && (callers.length === 0 || callersHad);
    if (isForWork && !callersHad && leaving > 0 && performance.now() - lastGiven < ON_ITS_WAY) return ask();
    inARow = isForWork ? 0 : inARow + 1;
    (isForWork ? nextWork() : callers).shift()?.();
    // Asked for from within, the next turn comes the next time round.
    ask();
  });
}

/** Whose turn it is of those who are no callers. */
function nextWork(): Waiting[] {
  const isForRest = canWait.length > 0 && (longWork.length === 0 || workInARow >= WORK_IN_A_ROW);
  workInARow = isForRest ? 0 : workInARow + 1;
  return isForRest ? canWait : longWork;
}

/** An answer leaves: long work begins its next piece when it is out of the house, or a moment later. Returns how to say so. */
export function answerLeaves(): () => void {
  leaving += 1;
  lastGiven = performance.now();
  return () => {
    leaving -= 1;
  };
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
export const A_COMMIT = 4;
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
