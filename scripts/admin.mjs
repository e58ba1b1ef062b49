import { install, serve, stopWith } from './steps.mjs';

// npm run admin -- invite <address> | reset <address> | list: lets administrators in from the machine itself.
if (!install()) stopWith('The packages could not be installed; npm said why above.');
await serve('admin', process.argv.slice(2));
