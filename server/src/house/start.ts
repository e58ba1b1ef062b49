import { Jobs } from '../platform/longJobs.ts';
import { patiently } from '../platform/patience.ts';
import { claimOnce } from '../request/claims.ts';
import { JOBS } from './jobs.ts';
import './followers.ts';
import { chmodSync, readdirSync, rmSync, statSync } from 'node:fs';
import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join, resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { refused, said } from '@tolvek/words';
import { languageOf } from '@tolvek/words/speech';
import { Cron } from 'croner';
import { type Logger, pino } from 'pino';
import { DayTurn } from '../desk/dayTurn.ts';
import { runMailings } from '../desk/mailings.ts';
import { DecisionWatch } from '../desk/nobody.ts';
import { runDueTimers } from '../desk/timers.ts';
import { tellDuties } from '../duty/begins.ts';
import { dropHalfSent } from '../files/store.ts';
import { keepWordsFound } from '../find/finding.ts';
import { firstStartLink, isLaid, layFromBefore } from '../groundwork/firstStart.ts';
import { type MailDoor, openMailDoor } from '../incoming/receive.ts';
import { runLines } from '../intake/lines.ts';
import { TextsSent } from '../notice/byText.ts';
import { startMailStandIn } from '../notice/mailStandIn.ts';
import { Sender } from '../notice/send.ts';
import { gatewayOf } from '../notice/texts.ts';
import { ProgramsTold } from '../notice/toPrograms.ts';
import { rightMissing } from '../people/grants.ts';
import { viewerOf } from '../people/queries.ts';
import { beginDay } from '../people/rules.ts';
import { AtWork } from '../platform/atWork.ts';
import { createAuth } from '../platform/auth.ts';
import { CannotStart } from '../platform/cannotStart.ts';
import { type Clock, DemoClock, isDemoData, systemClock } from '../platform/clock.ts';
import { type Config, ConfigRefused } from '../platform/config.ts';
import { type Database, openDatabase, runsBy } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { attempt, Job } from '../platform/jobs.ts';
import { Live } from '../platform/live.ts';
import { holdFolder } from '../platform/oneProcess.ts';
import { troubleOf } from '../platform/patience.ts';
import { documentOf, Problem } from '../platform/problem.ts';
import { Troubles } from '../platform/troubles.ts';
import { upgradeApart } from '../platform/upgrade/apart.ts';
import { isBehind } from '../platform/upgrade/index.ts';
import { write } from '../platform/work.ts';
import { threadsRun } from '../platform/workers.ts';
import { programBy } from '../program/keys.ts';
import { sendReports } from '../report/sending.ts';
import { readersOf } from '../request/open.ts';
import { createApp } from './app.ts';
import { keepHouse } from './keeping.ts';
import { registerAbout } from './registerAbout.ts';

export interface Running {
  readonly url: string;
  readonly house: House;
  /** Resolves when every letter that can be sent has been. */
  readonly lettersSent: () => Promise<void>;
  /** Resolves when no long work is left. */
  readonly jobsDone: () => Promise<void>;
  /** Looks at once whether a day has turned; resolves when all is computed anew that depends on it. */
  readonly dayTurned: () => Promise<void>;
  readonly stop: () => Promise<void>;
  /** Where the desk is laid; null when it is laid already. The link works once, for an hour. */
  readonly firstStart: string | null;
}

export interface StartOptions {
  /** Where the demo clock starts the first time, epoch ms. */
  readonly demoNow?: number;
  /** Fills an empty database; given the house before it opens. */
  readonly seed?: (house: House) => Promise<void> | void;
  /** Throws away the database there was, once nobody else has it. */
  readonly fresh?: boolean;
  /** Where a demo’s letters go, in place of its stand-in. */
  readonly smtp?: string;
}

threadsRun(new URL('./worker.mjs', import.meta.url));

/** What the house does by itself, and how often: each second, and every ten. */
const EACH_SECOND = '* * * * * *';
const EVERY_TEN_SECONDS = '*/10 * * * * *';
/** How long answers under way may still take when the application stops, ms. */
const LAST_ANSWERS = 1_500;
/** How long the house’s own work may still take then, ms. */
const LAST_JOBS = 5_000;

/**
 * Opens the database, starts the server, the outbox and the timers; in demo mode also the mail
 * stand-in. Everything that is written is private to the account that runs it.
 *
 * @throws FolderInUse when another process works on the data folder.
 * @throws ConfigRefused when a production is started on a demo’s data.
 */
export async function start(config: Config, options: StartOptions = {}): Promise<Running> {
  process.umask(0o077);
  const log = logTo(config.log);
  const letGo = holdFolder(resolve(config.data));
  try {
    if (options.fresh)
      for (const ending of ['', '-wal', '-shm']) rmSync(join(config.data, `tolvek.sqlite${ending}`), { force: true });
    return await startIn(config, options, log, letGo);
  } catch (error) {
    letGo();
    throw error;
  }
}

async function startIn(config: Config, options: StartOptions, log: Logger, letGo: () => void): Promise<Running> {
  // Who calls while the data is made ready is told to try again, instead of waiting for an answer
  // that never comes.
  let answer: RequestListener = stillStarting;
  const server = createServer((request, response) => answer(request, response));
  // Longer than proxies keep a line that rests, so that none sends into one we just closed.
  server.keepAliveTimeout = 65_000;
  server.headersTimeout = 66_000;
  await new Promise<void>((done, fail) => {
    server.once('error', fail);
    server.listen(config.port, config.host, done);
  });
  const { port } = server.address() as AddressInfo;
  let mailDoor: MailDoor | null = null;
  const closeDoors = (error: unknown): never => {
    server.close();
    server.closeAllConnections();
    void mailDoor?.close();
    throw error;
  };
  mailDoor = config.mailIn === null ? null : await openMailDoor(config.mailIn).catch(closeDoors);
  const db = await readied(config, log).catch(closeDoors);
  dropHalfSent(config);
  const troubles = new Troubles(log);
  const clock: Clock = config.mode === 'demo' ? new DemoClock(db, options.demoNow ?? Date.now()) : systemClock;
  runsBy(db, clock);
  const standIn =
    config.mode === 'demo' && options.smtp === undefined ? await startMailStandIn(db, clock, troubles) : null;
  const sender = new Sender({ db, clock, config, log, troubles }, options.smtp ?? standIn?.url ?? config.smtp);
  const live = new Live(
    (id) => readersOf(db, id),
    (id) => viewerOf(db, id),
  );
  let laid = false;
  const isLaidNow = (): boolean => (laid ||= isLaid(db));
  const url = config.port === 0 ? `http://${config.host}:${port}` : config.url;
  const wakeOutbox = (): void => {
    sender.wake();
    toPrograms.wake();
    byText.wake();
  };
  const house: House = {
    ...{ db, clock, config: { ...config, url, port, mailIn: mailDoor?.url ?? null }, live, log, troubles, wakeOutbox },
    atWork: new AtWork(),
    wakeJobs: () => longWork.begin(),
    viewerOf: (id) => viewerOf(db, id),
    programBy: (key) => programBy(house, key),
    rightMissing: (right) => rightMissing(db, right),
    registerOf: (by, key) => registerAbout(db, by, key),
    isLaid: isLaidNow,
  };
  const toPrograms = new ProgramsTold(house);
  const byText = new TextsSent(house, gatewayOf(house.config));
  const longWork = new Jobs(house, JOBS);
  await patiently(house, () => db.transaction((tx) => claimOnce(tx), { behavior: 'immediate' }));
  await options.seed?.(house);
  await patiently(house, () => layFromBefore(house));
  await patiently(house, () => write(house, (work) => beginDay(work)));
  const firstStart = isLaidNow()
    ? null
    : await patiently(house, () =>
        write(house, ({ tx, now }) => `${house.config.url}/start/${firstStartLink(tx, config.secret, '', now)}`),
      );
  answer = createApp(house, createAuth(house));
  mailDoor?.begin(house);

  const timers = new Job(house, 'timers', async () => {
    await runDueTimers(house);
    await runMailings(house);
    await runLines(house);
    await tellDuties(house);
    await sendReports(house);
  });
  const tick = (): void => {
    timers.begin();
    wakeOutbox();
    wordsFound.begin();
  };
  const dayTurn = new DayTurn(house);
  const turnOfDay = new Job(house, 'dayTurn', () => dayTurn.turn());
  const watch = new DecisionWatch(house);
  const watching = new Job(house, 'decisions', () => watch.look());
  const keepingHouse = new Job(house, 'keeping', () => keepHouse(house));
  let isOver = false;
  const wordsFound = new Job(house, 'find', () => keepWordsFound(house, () => isOver));
  const keeping = new Cron(EVERY_TEN_SECONDS, () => {
    keepingHouse.begin();
    turnOfDay.begin();
    watching.begin();
    longWork.begin();
  });
  tick();
  const ticking = new Cron(EACH_SECOND, tick);
  longWork.begin();

  let stopping: Promise<void> | null = null;
  const stop = async (): Promise<void> => {
    ticking.stop();
    keeping.stop();
    longWork.close();
    isOver = true;
    live.close();
    await mailDoor?.close();
    await new Promise<void>((done) => {
      server.close(() => done());
      server.closeIdleConnections();
      setTimeout(() => server.closeAllConnections(), LAST_ANSWERS).unref();
    });
    // What a job has not done by then is done after the next start.
    const jobs = Promise.all(
      [timers, turnOfDay, watching, keepingHouse, longWork, wordsFound].map((job) => job.idle()),
    );
    await Promise.all([
      sender.close(),
      toPrograms.close(),
      byText.close(),
      Promise.race([jobs, pause(LAST_JOBS, undefined, { ref: false })]),
    ]);
    await standIn?.close();
    if (clock instanceof DemoClock) attempt(house, 'clock', () => clock.keep());
    db.$client.close();
    letGo();
  };
  const dayTurned = async (): Promise<void> => {
    await turnOfDay.idle();
    turnOfDay.begin();
    await turnOfDay.idle();
    watching.begin();
    await watching.idle();
  };
  return {
    ...{ url, house, firstStart },
    lettersSent: async () => void (await Promise.all([sender.idle(), toPrograms.idle(), byText.idle()])),
    jobsDone: async () => {
      await longWork.idle();
      await wordsFound.idle();
      wordsFound.begin();
      await wordsFound.idle();
    },
    dayTurned,
    stop: () => (stopping ??= stop()),
  };
}

/** How long a start waits for a database that another program holds, ms; and between two looks. */
const START_PATIENCE = 10_000;
const A_LOOK = 250;

/** The database of a configuration, up to date and closed to others. */
async function readied(config: Config, log: Logger): Promise<Database> {
  const db = await opened(resolve(config.data), log);
  refuseDemoData(db, config);
  makePrivate(resolve(config.data));
  return db;
}

/**
 * The database of a folder, once nobody else holds it: bringing its tables up to date has to write.
 *
 * @throws DatabaseHeld when it stays held.
 * @throws CannotUpgrade when it can’t be brought up to date.
 */
async function opened(folder: string, log: Logger): Promise<Database> {
  const until = performance.now() + START_PATIENCE;
  for (;;) {
    try {
      if (isBehind(folder))
        await upgradeApart(folder, (name) => log.info({ step: name }, 'bringing the data up to date'));
      return openDatabase(folder);
    } catch (error) {
      if (troubleOf(error) !== 'locked') throw error;
      if (performance.now() > until) throw new DatabaseHeld(said('commands:databaseHeld', { folder }));
    }
    await pause(A_LOOK);
  }
}

/** Thrown at a start when another program holds the database, and does not let go of it. */
class DatabaseHeld extends CannotStart {}

/** A log that a full disk or a closed terminal can’t end the application by. */
function logTo(level: Config['log']): Logger {
  const terminal = pino.destination({ fd: 1, sync: true });
  terminal.on('error', () => undefined);
  return pino({ level }, terminal);
}

/** The demo’s people all have one known password: its data is never opened as a production’s. */
function refuseDemoData(db: Database, { mode, data }: Config): void {
  if (mode === 'demo' || !isDemoData(db)) return;
  db.$client.close();
  throw new ConfigRefused(said('commands:demoData', { folder: resolve(data) }));
}

/** Closes to others what an earlier release left open to them. */
function makePrivate(folder: string): void {
  chmodSync(folder, 0o700);
  for (const name of readdirSync(folder, { recursive: true, withFileTypes: true })) {
    const path = join(name.parentPath, name.name);
    const wanted = name.isDirectory() ? 0o700 : 0o600;
    if ((statSync(path).mode & 0o777) !== wanted) chmodSync(path, wanted);
  }
}

const stillStarting: RequestListener = (request, response) => {
  const wishes = request.headers['accept-language']?.split(',') ?? [];
  const problem = documentOf(new Problem(503, 'starting', refused('starting')), languageOf(wishes));
  response
    .writeHead(503, { 'content-type': 'application/problem+json', 'retry-after': '2' })
    .end(JSON.stringify(problem));
};
