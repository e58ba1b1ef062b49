import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { said } from '@tolvek/words';
import { pino } from 'pino';
import { inviteAdministrator, listAdministrators, passwordsOn, resetPassword } from './groundwork/admin.ts';
import { isLaid } from './groundwork/firstStart.ts';
import { registerAbout } from './house/registerAbout.ts';
import { rightMissing } from './people/grants.ts';
import { viewerOf } from './people/queries.ts';
import { AtWork } from './platform/atWork.ts';
import { CannotStart, spokenHere } from './platform/cannotStart.ts';
import { isDemoData, systemClock } from './platform/clock.ts';
import { ConfigRefused, readConfig } from './platform/config.ts';
import { openDatabase } from './platform/database.ts';
import type { House } from './platform/house.ts';
import { Live } from './platform/live.ts';
import { Troubles } from './platform/troubles.ts';
import { isBehind } from './platform/upgrade/index.ts';

/**
 * `npm run admin -- invite <address> | reset <address> | passwords on | list`: lets administrators in from the
 * machine itself, also while the application runs.
 */
try {
  const config = readConfig(process.env);
  const folder = resolve(config.data);
  if (existsSync(join(folder, 'tolvek.sqlite')) && isBehind(folder))
    throw new ConfigRefused(said('commands:adminBehind', { folder }));
  process.umask(0o077);
  const db = openDatabase(folder);
  if (isDemoData(db)) throw new ConfigRefused(said('commands:demoData', { folder }));
  const log = pino({ level: 'silent' });
  const house: House = {
    ...{ db, clock: systemClock, config, log, troubles: new Troubles(log) },
    atWork: new AtWork(),
    live: new Live(
      () => null,
      () => null,
    ),
    viewerOf: (id) => viewerOf(db, id),
    programBy: () => null,
    rightMissing: (right) => rightMissing(db, right),
    registerOf: (by, key) => registerAbout(db, by, key),
    isLaid: () => isLaid(db),
    wakeOutbox: () => undefined,
    wakeJobs: () => undefined,
  };
  const [command, address] = process.argv.slice(2);
  if (command === 'invite') console.log(spokenHere(inviteAdministrator(house, address)));
  else if (command === 'reset') console.log(spokenHere(resetPassword(house, address)));
  else if (command === 'passwords' && address === 'on') console.log(spokenHere(passwordsOn(house)));
  else if (command === 'list') for (const line of listAdministrators(db)) console.log(spokenHere(line));
  else throw new ConfigRefused(said('commands:adminUsage'));
  db.$client.close();
} catch (error) {
  console.error(error instanceof CannotStart ? error.message : error);
  process.exit(1);
}
