import { install, run, stopWith } from './steps.mjs';

// npm run laws: the property tests again and again with other cases, `-- 20` for so many seeds.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
const seeds = Number(process.argv[2] ?? 5);
if (!Number.isInteger(seeds) || seeds < 1 || seeds > 1_000)
  stopWith('npm run laws -- N takes a number of seeds from 1 to 1000.');
const failed = [];
for (let turn = 0; turn < seeds; turn += 1) {
  const seed = String(Math.floor(Math.random() * 2_147_483_647));
  console.log(`\n— seed ${seed}`);
  const env = { ...process.env, TOLVEK_SEED: seed };
  const laws = ['core/laws', 'server/src/platform/signIn', 'server/src/request/conditionSql'];
  if (!run('npx', ['vitest', 'run', ...laws], { env })) failed.push(seed);
}
if (failed.length > 0) stopWith(`Failed with TOLVEK_SEED=${failed.join(', ')}`);
console.log(`${seeds} seeds passed.`);
