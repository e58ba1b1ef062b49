import { build, install, serve, stopWith } from './steps.mjs';

// npm start: production, configured from the environment (see docs/guide.md).
if (!install()) stopWith('The packages could not be installed; npm said why above.');
if (!build()) stopWith('The web pages could not be built; the reason stands above.');
await serve('server');
