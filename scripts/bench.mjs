import { build, install, serve, stopWith } from './steps.mjs';

// npm run bench: measurements, each beside a limit in the same run.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
if (!build()) stopWith('The web pages could not be built; the reason stands above.');
serve('bench/src/main.ts', process.argv.slice(2));
