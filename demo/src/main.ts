import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import {
  by,
  CannotStart,
  ConfigRefused,
  DEMO_PASSWORD,
  makeToken,
  type Running,
  spokenHere,
  start,
  stayUp,
  warmWorkers,
  write,
} from '@tolvek/server';
import { people } from '@tolvek/server/schema';
import { said } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { demoConfig } from './demoConfig.ts';
import { keepInStep, readDirectory } from './directory.ts';
import { addressOf, STAFF } from './people.ts';
import { DEMO_NOW, isSeeded, seed } from './seed.ts';

/** The station’s directory, which keeps some of its people in step. */
const DIRECTORY = fileURLToPath(new URL('../directory.json', import.meta.url));

/** Connects the directory that ships with the demo, as an administrator would. */
async function connectDirectory({ house, url }: Running): Promise<void> {
  const ada = house.db.select({ id: people.id }).from(people).where(eq(people.name, 'Ada Quillfeather')).get();
  const { token } = write(house, (work) =>
    makeToken(by(work, ada?.id ?? null), { name: 'Station directory', days: null }),
  );
  const { refused } = await keepInStep(readDirectory(DIRECTORY), { address: `${url}/scim/v2`, token });
  if (refused.length > 0) throw new Error(refused.join('\n'));
}

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
  let isNew = false;
  const running = await start(demoConfig(process.env), {
    demoNow: DEMO_NOW,
    seed: async (house) => {
      isNew = !isSeeded(house);
      await seed(house, size);
    },
    fresh: values.fresh,
  });
  stayUp(running.house.log);
  if (isNew) await connectDirectory(running);
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
