const TIMES = Number(process.env.TOLVEK_OFTEN ?? 0.4);

/**
 * How many cases a law tries: so many in `npm test`, and `TOLVEK_OFTEN` times as many elsewhere, in
 * `npm run laws` four times.
 */
export const often = (cases: number): number => Math.ceil(cases * TIMES);

/** Whether it is one of those longer runs. */
export const IS_LONG = TIMES > 1;
