import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { pino } from 'pino';
import { nextTimerAt, runDueTimers } from '../deadline/timers.ts';
import { forgetUnclaimed } from '../files/commands.ts';
import { forgetOldKept } from '../intake/kept.ts';
import { startMailStandIn } from '../notice/mailStandIn.ts';
import { Sender } from '../notice/send.ts';
import { DayTurn } from '../register/existing.ts';
import { createApp } from './app.ts';
import { createAuth } from './auth.ts';
import { type Clock, DemoClock, systemClock } from './clock.ts';
import type { Config } from './config.ts';
import { type Database, openDatabase } from './database.ts';
import type { House } from './house.ts';
import { forgetOldAnswers } from './idempotency.ts';
import { Live } from './live.ts';

export interface Running {
  readonly url: string;
  readonly house: House;
  /** Resolves when every letter that can be sent has been. */
  readonly lettersSent: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

export interface StartOptions {
  /** Where the demo clock starts the first time, epoch ms. */
  readonly demoNow?: number;
  /** Fills an empty database; given the house before it opens. */
  readonly seed?: (house: House) => Promise<void> | void;
}

const TICK = 1_000;

/**
 * Opens the database, starts the server, the outbox and the timers; in demo mode also the mail
 * stand-in.
 */
export async function start(config: Config, options: StartOptions = {}): Promise<Running> {
  const log = pino({ level: config.log });
  const db: Database = openDatabase(resolve(config.data));
  const clock: Clock = config.mode === 'demo' ? new DemoClock(db, options.demoNow ?? Date.now()) : systemClock;
  const standIn = config.mode === 'demo' ? await startMailStandIn(db, clock) : null;
  const sender = new Sender({ db, clock, config, log }, standIn?.url ?? config.smtp);
  const live = new Live(db);
  // Who calls while the data is made is told to try again, instead of waiting for an answer that
  // never comes.
  let answer: RequestListener = stillStarting;
  const server = createServer((request, response) => answer(request, response));
  await new Promise<void>((done, fail) => {
    server.once('error', fail);
    server.listen(config.port, config.host, done);
  });
  const { port } = server.address() as AddressInfo;
  const url = config.port === 0 ? `http://${config.host}:${port}` : config.url;
  const house: House = { db, clock, config: { ...config, url, port }, live, log, wakeOutbox: () => sender.wake() };
  await options.seed?.(house);
  answer = createApp(house, createAuth(db, house.config));

  const tick = (): void => {
    try {
      const at = nextTimerAt(db);
      if (at !== null && at <= clock.now()) runDueTimers(house);
      sender.wake();
    } catch (error) {
      log.error({ err: error }, 'the timers stumbled; they try again in a second');
    }
  };
  const ticking = setInterval(tick, TICK);
  const dayTurn = new DayTurn(house);
  const keeping = setInterval(() => {
    if (clock instanceof DemoClock) clock.keep();
    db.transaction((tx) => forgetOldAnswers(tx, clock.now()));
    forgetUnclaimed({ db, config }, clock.now());
    forgetOldKept(db, clock.now());
    dayTurn.turn();
  }, 10_000);
  tick();

  let stopping: Promise<void> | null = null;
  const stop = async (): Promise<void> => {
    clearInterval(ticking);
    clearInterval(keeping);
    live.close();
    await new Promise<void>((done) => {
      server.close(() => done());
      server.closeIdleConnections();
      setTimeout(() => server.closeAllConnections(), 2_000).unref();
    });
    await sender.close();
    await standIn?.close();
    if (clock instanceof DemoClock) clock.keep();
    db.$client.close();
  };
  return { url, house, lettersSent: () => sender.idle(), stop: () => (stopping ??= stop()) };
}

const stillStarting: RequestListener = (_request, response) => {
  const problem = {
    type: 'about:blank',
    title: 'Still starting',
    status: 503,
    detail: 'Tolvek is making its data ready. Try again in a few seconds.',
  };
  response
    .writeHead(503, { 'content-type': 'application/problem+json', 'retry-after': '2' })
    .end(JSON.stringify(problem));
};
