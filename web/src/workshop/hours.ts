/** Lengths are typed in hours here and kept in ms. */
export const HOUR = 3_600_000;
