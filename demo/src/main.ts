import { parseArgs } from 'node:util';
import { CannotStart, ConfigRefused, DEMO_PASSWORD, start, stayUp, warmWorkers } from '@tolvek/server';
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
  if (!Number.isInteger(size) || size < 0 || size > 1_000_000)
    throw new ConfigRefused('--size takes a whole number from 0 to 1000000.');
  const running = await start(demoConfig(process.env), {
    demoNow: DEMO_NOW,
    seed: (house) => seed(house, size),
    fresh: values.fresh,
  });
  stayUp(running.house.log);
  warmWorkers().catch((error: unknown) => running.house.log.error({ err: error }, 'no threads for heavy work'));
  console.log(`Tolvek is ready at ${running.url}`);
  console.log(`Sign in with the password “${DEMO_PASSWORD}” as:`);
  for (const person of STAFF) if (person.does) console.log(`  ${addressOf(person.name).padEnd(36)} ${person.does}`);
  console.log('Ctrl+C stops everything.');
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => void running.stop().then(() => process.exit(0)));
} catch (error) {
  const inUse = error instanceof Error && 'code' in error && error.code === 'EADDRINUSE';
  console.error(
    inUse
      ? `The port is in use. Choose another with PORT=4320 npm run demo.`
      : error instanceof CannotStart
        ? error.message
        : error,
  );
  process.exit(1);
}
