import { install, serve, stopWith } from './steps.mjs';

// npm run directory -- <file> --to <address> [--watch]: a directory out of a file, which keeps a desk in step by SCIM 2.0.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
await serve('directory', process.argv.slice(2));
