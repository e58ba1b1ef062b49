/**
 * How many cases a law tries: so many in `npm test`, and `TOLVEK_OFTEN` times as many elsewhere, in
 * `npm run laws` four times.
 */
export const often = (cases: number): number => Math.ceil(cases * Number(process.env.TOLVEK_OFTEN ?? 1));
