/**
 * One measured figure beside a limit measured in the same run. Absolute times of a machine mean
 * little (durable writes swing a hundredfold within an hour), so what counts is the ratio.
 */
export interface Figure {
  readonly name: string;
  /** Of us and of the limit, in the unit that the name tells; the median of the rounds. */
  readonly ours: number;
  readonly limit: number;
  /** How many times the limit we take; below 1 we take less. */
  readonly ratio: number;
  /** The ratio wanted at most. */
  readonly wanted: number;
  readonly met: boolean;
}

/**
 * Rounds of every figure: ours and the limit take turns, so that what disturbs one disturbs both.
 */
export const ROUNDS = 5;

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? (sorted[middle] ?? 0) : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
}

/** The value that a part of them is at most: of a hundred the 95th for 0.95. */
export function quantile(values: readonly number[], part: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0;
}

const short = (value: number): number => Number(value.toPrecision(4));

/** A figure from the rounds of both sides; each a time or a size, of which less is better. */
export function figure(name: string, ours: readonly number[], limit: readonly number[], wanted: number): Figure {
  const [mine, theirs] = [median(ours), median(limit)];
  const ratio = theirs === 0 ? (mine === 0 ? 1 : Number.POSITIVE_INFINITY) : mine / theirs;
  return { name, ours: short(mine), limit: short(theirs), ratio: short(ratio), wanted, met: ratio <= wanted };
}

/** Measures ours and the limit in turns. */
export async function interleaved(
  name: string,
  wanted: number,
  ours: () => Promise<number> | number,
  limit: () => Promise<number> | number,
): Promise<Figure> {
  const rounds: { ours: number; limit: number }[] = [];
  // The first of each warms up and is not counted.
  for (let round = -1; round < ROUNDS; round += 1) {
    const each = { limit: await limit(), ours: await ours() };
    if (round >= 0) rounds.push(each);
  }
  return figure(
    name,
    rounds.map((each) => each.ours),
    rounds.map((each) => each.limit),
    wanted,
  );
}

/** How often a call is measured by itself; a few before them warm up and are not counted. */
const CALLS = 60;

/** How long each of some calls took, ms. */
export async function took(call: (n: number) => unknown): Promise<readonly number[]> {
  const times: number[] = [];
  for (let n = -5; n < CALLS; n += 1) {
    const before = performance.now();
    await call(Math.abs(n));
    if (n >= 0) times.push(performance.now() - before);
  }
  return times;
}
