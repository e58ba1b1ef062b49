import { pino } from 'pino';
import { Sender } from '../../server/src/notice/send.ts';
import { systemClock } from '../../server/src/platform/clock.ts';
import { readConfig } from '../../server/src/platform/config.ts';
import { openDatabase } from '../../server/src/platform/database.ts';
import { Troubles } from '../../server/src/platform/troubles.ts';

/** Sends what waits in the outbox of a folder and ends; a test kills it at some step of that. */
const [folder = '', smtp = ''] = process.argv.slice(2);
const log = pino({ level: 'silent' });
const config = readConfig({ TOLVEK_SECRET: 'x'.repeat(32), TOLVEK_SMTP: smtp });
const sender = new Sender(
  { db: openDatabase(folder), clock: systemClock, config, log, troubles: new Troubles(log) },
  smtp,
);
sender.wake();
await sender.idle();
await sender.close();
