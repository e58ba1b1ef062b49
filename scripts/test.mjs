import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { install, root, run, stopWith } from './steps.mjs';

// npm test: every check, on a fresh clone as well. Ends with “N passed, N failed”, summed from the
// runners’ own reports. `--quick`: all but the journeys in the browser.
const isQuick = process.argv.includes('--quick');
const reports = join(root, '.reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

if (!install()) stopWith('The packages could not be installed; npm said why above.');

const failedChecks = [];
const failedTexts = [];
const begun = (name) => console.log(`\n— ${name}`);
const check = (name, work) => {
  begun(name);
  if (!work()) failedChecks.push(name);
};
const npx = (...args) => run('npx', args);

/** Whether a command went well; what it says comes in one piece, so that several can run beside each other. */
const beside = (command, args, cwd = root) =>
  new Promise((done) => {
    const said = [];
    const child = spawn(command, args, { cwd, stdio: ['ignore', 'pipe', 'pipe'] });
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (some) => said.push(some));
    child.on('error', (error) => said.push(Buffer.from(`${error}\n`)));
    child.on('close', (code) => done({ isWell: code === 0, text: Buffer.concat(said).toString() }));
  });
// One checker each: several check again what they share.
const types = (project) => [`types of ${project}`, 'npx', ['tsc', '--noEmit', '--checkers', '1', '-p', project]];
/** Each with its name, its command and where it runs; those in one line after each other, the lines beside each other. */
const lines = [
  [
    types('web'),
    types('words'),
    ['unused code', 'npx', ['knip', '--no-progress']],
    ['migrations match the tables', 'npx', ['drizzle-kit', 'check'], join(root, 'server')],
  ],
  [
    types('.'),
    types('core'),
    ['lint and format', 'npx', ['biome', 'ci', '--colors=off', '--error-on-warnings', '.']],
    ['web pages build', 'npx', ['vite', 'build', '--logLevel', 'warn'], join(root, 'web')],
  ],
];
await Promise.all(
  lines.map(async (line) => {
    for (const [name, command, args, cwd] of line) {
      const { isWell, text } = await beside(command, args, cwd);
      begun(name);
      if (isWell) continue;
      process.stdout.write(text);
      failedTexts.push(text);
      failedChecks.push(name);
    }
  }),
);
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
// Said once more at the end, where it is looked for: what stands above them is long.
for (const text of failedTexts) process.stdout.write(`\n${text}`);
for (const file of vitest?.testResults ?? []) {
  if (file.status === 'failed' && file.assertionResults.length === 0)
    console.log(`\n✗ ${relative(root, file.name)}\n${file.message}`);
  for (const test of file.assertionResults.filter(({ status }) => status === 'failed'))
    console.log(`\n✗ ${relative(root, file.name)} › ${test.fullName}\n${test.failureMessages.join('\n')}`);
}
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
