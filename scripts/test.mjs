import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, root, run, stopWith } from './steps.mjs';

// npm test: every check, on a fresh clone as well. Ends with “N passed, N failed”, summed from the
// runners’ own reports. `--quick`: all but the journeys in the browser.
const isQuick = process.argv.includes('--quick');
const reports = join(root, '.reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

if (!install()) stopWith('The packages could not be installed; npm said why above.');

const failedChecks = [];
const check = (name, work) => {
  console.log(`\n— ${name}`);
  if (!work()) failedChecks.push(name);
};
const npx = (...args) => run('npx', args);

check('types', () => ['words', 'core', 'web', '.'].every((project) => npx('tsc', '--noEmit', '-p', project)));
check('lint and format', () => npx('biome', 'ci', '--error-on-warnings', '.'));
check('unused code', () => npx('knip', '--no-progress'));
check(
  'migrations match the tables',
  () =>
    spawnSync('npx', ['drizzle-kit', 'check'], { cwd: join(root, 'server'), stdio: ['ignore', 'ignore', 'inherit'] })
      .status === 0,
);
check('web pages build', () => build({ always: true }));
check('unit, property, border and server tests', () =>
  npx('vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile=${join(reports, 'vitest.json')}`),
);
if (!isQuick)
  check(
    'browser journeys',
    () =>
      browserReady() &&
      run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
        env: { ...process.env, PLAYWRIGHT_JSON_OUTPUT_NAME: join(reports, 'playwright.json') },
      }),
  );

const read = (name) => (existsSync(join(reports, name)) ? JSON.parse(readFileSync(join(reports, name), 'utf8')) : null);
const vitest = read('vitest.json');
const playwright = read('playwright.json');
const passed = (vitest?.numPassedTests ?? 0) + (playwright?.stats.expected ?? 0) + (playwright?.stats.flaky ?? 0);
const failed = (vitest?.numFailedTests ?? 0) + (playwright?.stats.unexpected ?? 0);
const silent = [vitest ? '' : 'Vitest left no report', playwright || isQuick ? '' : 'Playwright left no report'].filter(
  Boolean,
);
if (failedChecks.length > 0) console.log(`\nFailed: ${failedChecks.join(', ')}`);
for (const line of silent) console.log(line);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 || failedChecks.length > 0 || silent.length > 0 ? 1 : 0);

/** The journeys run in Debian’s Chromium; it is installed when it is missing and we may. */
function browserReady() {
  if (existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) return true;
  const may = process.getuid?.() === 0 && spawnSync('apt-get', ['--version']).status === 0;
  if (may) {
    console.log('Installing Chromium …');
    const quiet = { stdio: ['ignore', 'ignore', 'inherit'] };
    run('apt-get', ['update', '-qq'], quiet);
    if (run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], quiet)) return true;
  }
  console.error(
    'The browser journeys need Chromium. Install it with:\n  sudo apt-get update && sudo apt-get install chromium\nor point CHROMIUM to it, then run npm test again.',
  );
  return false;
}
