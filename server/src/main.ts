import { said } from '@tolvek/words';
import { start } from './house/start.ts';
import { CannotStart, spokenHere } from './platform/cannotStart.ts';
import { readConfig } from './platform/config.ts';
import { stayUp } from './platform/stayUp.ts';
import { warmWorkers } from './platform/workers.ts';

/** `npm start`: production, configured from the environment. */
try {
  const running = await start(readConfig(process.env));
  stayUp(running.house.log);
  warmWorkers().catch((error: unknown) => running.house.log.error({ err: error }, 'no threads for heavy work'));
  console.log(spokenHere(said('commands:ready', { url: running.url })));
  if (running.firstStart !== null) console.log(spokenHere(said('commands:firstStart', { url: running.firstStart })));
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => void running.stop().then(() => process.exit(0)));
} catch (error) {
  console.error(error instanceof CannotStart ? error.message : error);
  process.exit(1);
}
