import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { install, root, stopWith } from './steps.mjs';

// npm run mutants: each promise is broken by hand, one at a time, and the test that holds it has to
// fail. `-- words` for those that break something with these words in it.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
const words = process.argv.slice(2).join(' ').toLowerCase();
const mutants = JSON.parse(readFileSync(join(root, 'scripts/mutants.json'), 'utf8')).filter(({ breaks }) =>
  breaks.toLowerCase().includes(words),
);
const alive = [];
for (const { breaks, file, from, to, test } of mutants) {
  const path = join(root, file);
  const whole = readFileSync(path, 'utf8');
  if (whole.split(from).length !== 2) stopWith(`“${breaks}”: what is to be broken stands not just once in ${file}.`);
  const restore = () => writeFileSync(path, whole);
  process.once('exit', restore);
  let isKilled = true;
  try {
    writeFileSync(
      path,
      whole.replace(from, () => to),
    );
    const args = ['vitest', 'run', '--bail', '1', '--testTimeout', '60000', ...test.split(' ')];
    isKilled = spawnSync('npx', args, { cwd: root, stdio: 'ignore', timeout: 300_000 }).status !== 0;
  } finally {
    restore();
    process.off('exit', restore);
  }
  console.log(`${isKilled ? 'killed' : 'ALIVE '}  ${breaks}`);
  if (!isKilled) alive.push(breaks);
}
if (alive.length > 0) stopWith(`${alive.length} of ${mutants.length} are alive: no test saw what was broken.`);
console.log(`${mutants.length} killed.`);
