import { existsSync, mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { build } from 'esbuild';

// Puts the sources of each program together into one file: reading a thousand takes longer than most of what programs do.
// `node scripts/together.mjs` puts together what has changed; `built/` lies where the packages of the server are found.
const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const BUILT = join(root, 'server', 'built');

/** The programs, by name; the last two are threads of the others, the ones before of tests. */
const PROGRAMS = {
  server: 'server/src/main.ts',
  admin: 'server/src/admin.ts',
  demo: 'demo/src/main.ts',
  directory: 'demo/src/directoryMain.ts',
  sending: 'e2e/house/sendingProcess.ts',
  killed: 'server/src/platform/upgrade/killProcess.ts',
  worker: 'server/src/house/worker.ts',
  upgrade: 'server/src/platform/upgrade/inThread.ts',
};

/** The threads that programs start. */
const STARTED = ['worker', 'upgrade'];

/** Threads begin in a file of JavaScript that reads TypeScript; beside what is built stand they themselves. */
const THREADS = { './worker.mjs': './worker.mjs', './thread.mjs': './upgrade.mjs' };

/** The file that runs a program, by its name. */
export const programOf = (name) => join(BUILT, `${name}.mjs`);
const listOf = (name) => join(BUILT, `${name}.json`);

/** Whether a program is as its sources are. */
function isFresh(name) {
  if (!existsSync(programOf(name)) || !existsSync(listOf(name))) return false;
  const { mtimeMs } = statSync(programOf(name));
  const parts = JSON.parse(readFileSync(listOf(name), 'utf8'));
  return parts.every((part) => existsSync(join(root, part)) && statSync(join(root, part)).mtimeMs < mtimeMs);
}

/** Packages stay where they are; a source still says where it lies. */
const own = {
  name: 'own',
  setup(each) {
    each.onResolve({ filter: /^[^./]/ }, ({ kind, path }) =>
      kind === 'entry-point' || path.startsWith('@tolvek/') ? undefined : { path, external: true },
    );
    each.onLoad({ filter: /\.tsx?$/ }, ({ path }) => {
      let text = readFileSync(path, 'utf8');
      for (const [from, to] of Object.entries(THREADS))
        text = text.replaceAll(`new URL('${from}', import.meta.url)`, `new URL('${to}', import.meta.own)`);
      text = text
        .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(path).href))
        .replaceAll('import.meta.dirname', JSON.stringify(dirname(path)))
        .replaceAll('import.meta.own', 'import.meta.url');
      return { contents: text, loader: path.endsWith('x') ? 'tsx' : 'ts' };
    });
  },
};

async function putTogether(name, entry) {
  // Whoever starts one meanwhile finds a whole one.
  const fresh = join(BUILT, `${name}.${process.pid}.mjs`);
  const { metafile } = await build({
    ...{ entryPoints: [join(root, entry)], outfile: fresh, absWorkingDir: root, metafile: true },
    ...{ bundle: true, platform: 'node', format: 'esm', target: 'node20', logLevel: 'error', plugins: [own] },
  });
  const parts = Object.keys(metafile.inputs).filter((part) => !part.includes('node_modules'));
  writeFileSync(`${fresh}.json`, JSON.stringify([...parts, 'package-lock.json', 'scripts/together.mjs']));
  renameSync(`${fresh}.json`, listOf(name));
  renameSync(fresh, programOf(name));
}

/** Puts together what is not as its sources are: all programs, or one with the threads that it starts. */
export async function together(program) {
  mkdirSync(BUILT, { recursive: true });
  const wanted = program === undefined ? Object.keys(PROGRAMS) : [program, ...STARTED];
  await Promise.all(wanted.map((name) => (isFresh(name) ? undefined : putTogether(name, PROGRAMS[name]))));
}

if (process.argv[1] && basename(process.argv[1]) === 'together.mjs') await together();
