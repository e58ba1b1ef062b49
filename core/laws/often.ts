const TIMES = Number(process.env.TOLVEK_OFTEN ?? 0.4);

/**
 * How many cases a law tries: four tenths of so many in `npm test`, and `TOLVEK_OFTEN` times as many elsewhere, in
 * `npm run laws` four times. What it has to have met at least is given by it as well.
 */
export const often = (cases: number): number => Math.ceil(cases * TIMES);

/** Whether it is one of those longer runs. */
export const IS_LONG = TIMES > 1;
