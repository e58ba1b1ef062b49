import { upgrade } from './index.ts';
import { REBUILDS } from './rebuilds.ts';

/** Brings a folder up to date and is killed at a step: `killProcess.ts <folder> <step> rebuilds|all`. */
const [, , folder = '', killAt = '', which = 'all'] = process.argv;
upgrade(folder, {
  ...(which === 'rebuilds' ? { migrations: REBUILDS } : {}),
  onStep: (name) => {
    if (name === killAt) process.kill(process.pid, 'SIGKILL');
  },
});
