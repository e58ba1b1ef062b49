import { install, serve, stopWith } from './steps.mjs';

// npm run soak: a desk at work under faults, `-- --minutes N` for so long, `--seed S` for the same again.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
serve('e2e/soak/soak.ts', process.argv.slice(2));
