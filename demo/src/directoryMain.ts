import { watch } from 'node:fs';
import { parseArgs } from 'node:util';
import { ConfigRefused, spokenHere } from '@tolvek/server';
import { said } from '@tolvek/words';
import { keepInStep, readDirectory } from './directory.ts';

/**
 * `npm run directory -- people.json --to http://…/scim/v2 [--watch]`: a directory out of a file, which keeps a desk in
 * step by SCIM 2.0. Its token stands in `TOLVEK_DIRECTORY_TOKEN`.
 */
try {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { to: { type: 'string', default: '' }, watch: { type: 'boolean', default: false } },
  });
  const [path] = positionals;
  const token = process.env.TOLVEK_DIRECTORY_TOKEN ?? '';
  if (path === undefined || values.to === '' || token === '') throw new ConfigRefused(said('commands:directoryUse'));
  const once = async (): Promise<boolean> => {
    try {
      const { refused, ...counts } = await keepInStep(readDirectory(path), { address: values.to, token });
      console.log(spokenHere(said('commands:inStep', counts)));
      for (const each of refused) console.error(`  ${each}`);
      return refused.length === 0;
    } catch (error) {
      console.error(error instanceof Error ? error.message : error);
      return false;
    }
  };
  const went = await once();
  if (!values.watch) process.exit(went ? 0 : 1);
  // An editor writes a file in several steps: it is read when it has rested.
  let resting: NodeJS.Timeout | undefined;
  watch(path, () => {
    clearTimeout(resting);
    resting = setTimeout(() => void once(), 300);
  });
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(2);
}
