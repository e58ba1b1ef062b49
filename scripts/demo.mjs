import { build, install, serve, stopWith } from './steps.mjs';

// npm run demo: everything a fresh clone needs, then the application with the demo scenario.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
if (!build()) stopWith('The web pages could not be built; the reason stands above.');
await serve('demo', process.argv.slice(2));
