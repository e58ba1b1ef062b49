import { setPriority } from 'node:os';
import { resolve } from 'node:path';
import { findingsOf } from '@tolvek/core/form';
import { workerData } from 'piscina';
import type { FORECAST, FORECAST_HELPS, FORECAST_SCORE, FORECAST_TRIED, REQUEST_FORECAST } from '../forecast/tasks.ts';
import { forecastFor, helpsFor, requestForecastFor, scoreFor, triedFor } from '../forecast/view.ts';
import { lookAtRows as lookedAt } from '../intake/takeInRows.ts';
import { mailingNamed } from '../mailing/queries.ts';
import { goesTo as wentTo } from '../mailing/recipients.ts';
import type { GOES_TO } from '../mailing/tasks.ts';
import type { Apart, OnData } from '../platform/apart.ts';
import { connect, type Reader, runsBy } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import { listening } from '../platform/reads.ts';
import type { Doing, Ready } from '../platform/workers.ts';
import { keptNow, lookAtCopy, lookAtReport as reportLooked, sentNow } from '../report/look.ts';
import type { COPY_LOOK, REPORT_KEPT, REPORT_LOOK, REPORT_SENT } from '../report/tasks.ts';
import type { SERVED_ROWS, SERVICE_TIMES } from '../service/tasks.ts';
import { servedRows as rowsServed, serviceTimes as timesServed } from '../service/times.ts';
import { lookAtBoard as boardLooked } from '../view/board.ts';
import { lookAtChart as chartLooked } from '../view/chartLook.ts';
import { lookAtMatrix as matrixLooked } from '../view/matrixLook.ts';
import type {
  ADD_UP_VIEW,
  LOOK_AT_BOARD,
  LOOK_AT_CHART,
  LOOK_AT_MATRIX,
  LOOK_AT_TOTALS,
  MAKE_INDEX,
} from '../view/tasks.ts';
import { lookAtTotals as totalsLooked } from '../view/totalsLook.ts';
import { IN_TIME, addUpView as viewAddedUp } from '../view/viewed.ts';
import { tryMailing as mailingTried } from '../workshop/mailings.ts';
import { planEffect as effected } from '../workshop/planDraft.ts';
import { fieldReaders as fieldRead, personReads as personRead } from '../workshop/planReaders.ts';
import type {
  FIELD_READERS,
  LOOK_AT_ROWS,
  LOOK_THROUGH,
  PERSON_READS,
  PLAN_EFFECT,
  TRY_CONDITION,
  TRY_MAILING,
} from '../workshop/tasks.ts';
import { tryCondition as tried } from '../workshop/tries.ts';

/** The priority of a thread that gives way to whoever answers, as `nice` counts. */
const GIVES_WAY = 10;
/** How long a thread waits for a lock, ms: nobody is held up by it. */
const BUSY_TIMEOUT = 5_000;

// On Linux this is the priority of the thread alone; elsewhere it would be that of the whole process.
try {
  if (workerData.givesWay && process.platform === 'linux') setPriority(GIVES_WAY);
} catch {
  // Where it may not be set, all have the same.
}

export const ready: Ready = () => true;
export const findings: Doing<typeof LOOK_THROUGH> = ({ design, around }) => findingsOf(design, around);
export const lookAtRows: Doing<typeof LOOK_AT_ROWS> = (on) => onData(on, (db) => lookedAt(db, on.now, ...on.input));
export const tryCondition: Doing<typeof TRY_CONDITION> = (on) => onData(on, (db) => tried(db, ...on.input));
export const planEffect: Doing<typeof PLAN_EFFECT> = (on) => onData(on, (db) => effected(db, ...on.input));
export const fieldReaders: Doing<typeof FIELD_READERS> = (on) => onData(on, (db) => fieldRead(db, ...on.input));
export const personReads: Doing<typeof PERSON_READS> = (on) => onData(on, (db) => personRead(db, ...on.input));

export const reportLook: Doing<typeof REPORT_LOOK> = (on) => onData(on, (db) => reportLooked(db, on.now, ...on.input));
export const reportKept: Doing<typeof REPORT_KEPT> = (on) => onData(on, (db) => keptNow(db, on.now, ...on.input));
export const reportSent: Doing<typeof REPORT_SENT> = (on) => onData(on, (db) => sentNow(db, on.now, ...on.input));
export const copyLook: Doing<typeof COPY_LOOK> = (on) => onData(on, (db) => lookAtCopy(db, on.now, ...on.input));

export const forecast: Doing<typeof FORECAST> = (on) => onData(on, (db) => forecastFor(db, on.now, ...on.input));
export const forecastHelps: Doing<typeof FORECAST_HELPS> = (on) =>
  onData(on, (db) => helpsFor(db, on.now, ...on.input));
export const forecastTried: Doing<typeof FORECAST_TRIED> = (on) =>
  onData(on, (db) => triedFor(db, on.now, ...on.input));
export const requestForecast: Doing<typeof REQUEST_FORECAST> = (on) =>
  onData(on, (db) => requestForecastFor(db, on.now, ...on.input));
export const forecastScore: Doing<typeof FORECAST_SCORE> = (on) =>
  onData(on, (db) => scoreFor(db, on.now, ...on.input));

export const addUpView: Doing<typeof ADD_UP_VIEW> = (on) => onData(on, (db) => viewAddedUp(db, ...on.input, on.now));
export const lookAtBoard: Doing<typeof LOOK_AT_BOARD> = (on) =>
  onData(on, (db) => boardLooked(db, ...on.input, on.now, IN_TIME));
export const lookAtChart: Doing<typeof LOOK_AT_CHART> = (on) =>
  onData(on, (db) => chartLooked(db, ...on.input, on.now, IN_TIME));
export const lookAtMatrix: Doing<typeof LOOK_AT_MATRIX> = (on) =>
  onData(on, (db) => matrixLooked(db, ...on.input, on.now, IN_TIME));
export const lookAtTotals: Doing<typeof LOOK_AT_TOTALS> = (on) =>
  onData(on, (db) => totalsLooked(db, ...on.input, on.now, IN_TIME));

/** It takes the database for as long as it takes: nobody else writes meanwhile, and everybody reads. */
export const makeIndex: Doing<typeof MAKE_INDEX> = ({ data, make }) => {
  const { $client } = connect(resolve(data), BUSY_TIMEOUT);
  try {
    $client.exec(make);
    return null;
  } catch (error) {
    if (error instanceof Error && 'code' in error) return String(error.code);
    throw error;
  } finally {
    $client.close();
  }
};

export const serviceTimes: Doing<typeof SERVICE_TIMES> = (on) =>
  onData(on, (db) => timesServed(db, on.now, ...on.input));
export const servedRows: Doing<typeof SERVED_ROWS> = (on) => onData(on, (db) => rowsServed(db, on.now, ...on.input));

export const tryMailing: Doing<typeof TRY_MAILING> = (on) => onData(on, (db) => mailingTried(db, ...on.input));
export const goesTo: Doing<typeof GOES_TO> = (on) =>
  onData(on, (db) => wentTo(db, mailingNamed(db, on.input).mailing, null));

/** Does work on the data with a connection of its own, which can’t write, by mistake neither. */
async function onData<T>({ data, now }: OnData<unknown>, work: (db: Reader) => T): Promise<Apart<T>> {
  const db = connect(resolve(data), BUSY_TIMEOUT, { readonly: true });
  runsBy(db, { now: () => now });
  try {
    return { state: 'done', ...listening(() => work(db)) };
  } catch (error) {
    if (error instanceof Problem) {
      const { status, type, said, problems, retryAfter } = error;
      return { state: 'refused', problem: { status, type, said, problems, retryAfter } };
    }
    const code = error instanceof Error && 'code' in error ? String(error.code) : '';
    return {
      state: 'stumbled',
      code,
      message: error instanceof Error ? (error.stack ?? error.message) : String(error),
    };
  } finally {
    db.$client.close();
  }
}
