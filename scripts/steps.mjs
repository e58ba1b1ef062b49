import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** Runs a command in the project and says whether it went well; its output goes to the terminal. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  return status === 0;
}

const newest = (path) => {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return readdirSync(path)
    .filter((name) => name !== 'node_modules' && name !== 'dist')
    .reduce((most, name) => Math.max(most, newest(join(path, name))), 0);
};

/** Installs what package-lock.json names, unless that is installed already. */
export function install() {
  const marker = join(root, 'node_modules', '.package-lock.json');
  if (existsSync(marker) && statSync(marker).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs) return true;
  console.log('Installing packages …');
  return run('npm', ['ci', '--no-audit', '--no-fund'], { stdio: ['ignore', 'ignore', 'inherit'] });
}

/** Builds the web pages, unless they are newer than their sources. */
export function build() {
  const page = join(root, 'web', 'dist', 'index.html');
  const sources = ['web', 'core', 'contract', 'words'].map((name) => join(root, name));
  if (existsSync(page) && statSync(page).mtimeMs > Math.max(...sources.map(newest))) return true;
  console.log('Building the web pages …');
  return run('npx', ['vite', 'build', '--logLevel', 'warn'], { cwd: join(root, 'web') });
}

/**
 * Runs a program of the project until it ends or is told to stop: by its name one that is put together from its sources, by
 * its path a source as it stands.
 */
export async function serve(program, args = []) {
  const runs = program.endsWith('.ts') ? ['--import', 'tsx', program] : [await builtProgram(program)];
  const child = spawn(process.execPath, [...runs, ...args], { cwd: root, stdio: 'inherit' });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 0));
}

/** The file of a program, as its sources are. */
async function builtProgram(name) {
  // The packages it is put together with may only just have been installed.
  const { programOf, together } = await import('./together.mjs');
  await together(name);
  return programOf(name);
}

export function stopWith(message) {
  console.error(message);
  process.exit(1);
}
