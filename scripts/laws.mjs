import { install, run, stopWith } from './steps.mjs';

// npm run laws: the property tests again and again with other cases and ten times as many, `-- 20` for so many seeds;
// `--runs 200` for so many sequences of each model-based law.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
const args = process.argv.slice(2);
const at = args.indexOf('--runs');
const runs = at < 0 ? undefined : Number(args.splice(at, 2)[1]);
if (runs !== undefined && !(Number.isInteger(runs) && runs > 0)) stopWith('--runs takes a number of sequences.');
const seeds = Number(args[0] ?? 5);
if (!Number.isInteger(seeds) || seeds < 1 || seeds > 1_000)
  stopWith('npm run laws -- N takes a number of seeds from 1 to 1000.');
const failed = [];
for (let turn = 0; turn < seeds; turn += 1) {
  const seed = String(Math.floor(Math.random() * 2_147_483_647));
  console.log(`\n— seed ${seed}`);
  const env = { ...process.env, TOLVEK_SEED: seed, TOLVEK_OFTEN: '4', ...(runs ? { TOLVEK_RUNS: String(runs) } : {}) };
  const laws = [
    'core/laws',
    'server/src/platform/signIn',
    'server/src/request/conditionSql',
    'core/src/design',
    'e2e/house/oneWrite',
    'e2e/house/accessByStage',
    'e2e/house/refusals',
    'e2e/house/scimModel',
    'e2e/house/accessPlan',
    'e2e/house/people',
    'e2e/house/rights',
    'e2e/house/ruledGroups',
    'e2e/house/waiting',
    'e2e/house/readers',
    'e2e/house/decidingModel',
    'web/src/workshop/routing/dmnFile',
    'e2e/carried/killed',
    'e2e/house/killed',
    'e2e/house/survival',
    'bench/src/generator',
  ];
  if (!run('npx', ['vitest', 'run', ...laws], { env })) failed.push(seed);
}
if (failed.length > 0) stopWith(`Failed with TOLVEK_SEED=${failed.join(', ')}`);
console.log(`${seeds} seeds passed.`);
