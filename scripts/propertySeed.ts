import { configureGlobal } from 'fast-check';

/**
 * Property tests try the same cases each time, so that a failure can be looked into. `TOLVEK_SEED=7
 * npm test` tries others.
 */
configureGlobal({ seed: Number(process.env.TOLVEK_SEED ?? 20_261_123) });
