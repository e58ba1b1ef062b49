import { parseArgs } from 'node:util';
import { CannotStart, ConfigRefused, DEMO_PASSWORD, spokenHere, start, stayUp, warmWorkers } from '@tolvek/server';
import { said } from '@tolvek/words';
import { demoConfig } from './demoConfig.ts';
import { addressOf, STAFF } from './people.ts';
import { DEMO_NOW, seed } from './seed.ts';

/**
 * `npm run demo`: the application with the demo scenario. `--fresh` starts over, `--size N` makes N
 * requests.
 */
const { values } = parseArgs({
  options: { fresh: { type: 'boolean', default: false }, size: { type: 'string', default: '900' } },
});
try {
  const size = Number(values.size);
  if (!Number.isInteger(size) || size < 0 || size > 1_000_000) throw new ConfigRefused(said('commands:badSize'));
  const running = await start(demoConfig(process.env), {
    demoNow: DEMO_NOW,
    seed: (house) => seed(house, size),
    fresh: values.fresh,
  });
  stayUp(running.house.log);
  warmWorkers().catch((error: unknown) => running.house.log.error({ err: error }, 'no threads for heavy work'));
  console.log(spokenHere(said('commands:ready', { url: running.url })));
  console.log(spokenHere(said('commands:signInAs', { password: DEMO_PASSWORD })));
  for (const person of STAFF) if (person.does) console.log(`  ${addressOf(person.name).padEnd(36)} ${person.does}`);
  console.log(spokenHere(said('commands:howToStop')));
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => void running.stop().then(() => process.exit(0)));
} catch (error) {
  const inUse = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
  console.error(inUse ? spokenHere(said('commands:portInUse')) : error instanceof CannotStart ? error.message : error);
  process.exit(1);
}
