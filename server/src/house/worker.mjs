// A thread begins here: it learns to read TypeScript, then takes up what it can do.
import { register } from 'tsx/esm/api';

register();
export const { ready, fieldReaders, findings, lookAtRows, personReads, planEffect, tryCondition } = await import(
  './worker.ts'
);
