// A thread begins here: it learns to read TypeScript, then takes up what it can do.
import { constants, setPriority } from 'node:os';
import { register } from 'tsx/esm/api';

try {
  // On Linux this is the thread’s own: where cores are few, pages come before heavy work.
  if (process.platform === 'linux') setPriority(0, constants.priority.PRIORITY_LOW);
} catch {
  // Where it may not be set, all have the same.
}
register();
export const { findings, takeInRows, tryCondition } = await import('./worker.ts');
