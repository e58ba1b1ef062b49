import { install, serve, stopWith } from './steps.mjs';

// npm run soak: a desk at work under faults, `-- --minutes N` for so long, `--seed S` for the same again;
// `-- doors`: two hundred requesters at three doors for two minutes, `--seconds N` for so long.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
const [which, ...args] = process.argv.slice(2);
if (which === 'doors') serve('e2e/soak/doors.ts', args);
else serve('e2e/soak/soak.ts', process.argv.slice(2));
