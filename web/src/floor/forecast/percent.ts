/** A chance from 0 to 1, in whole percent. */
export const percentOf = (chance: number): number => Math.round(chance * 100);
