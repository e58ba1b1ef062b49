/**
 * A number from 0 to 1 that is always the same for the same three whole numbers: each request of each run has chances of its
 * own, so that what is changed somewhere leaves all others as they were. The mixing is that of MurmurHash3 (fmix32).
 */
export function chance(seed: number, run: number, turn: number): number {
  let h = seed | 0;
  h = mixed(h ^ Math.imul(run + 1, 0x9e3779b1));
  h = mixed(h ^ Math.imul(turn + 1, 0xc2b2ae3d));
  return ((h >>> 0) + 0.5) / 4_294_967_296;
}

function mixed(value: number): number {
  let h = value;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return h ^ (h >>> 16);
}
