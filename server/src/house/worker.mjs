// A thread begins here: it learns to read TypeScript, then takes up what it can do.
import { register } from 'tsx/esm/api';

register();
const can = await import('./worker.ts');
export const { ready, fieldReaders, findings, goesTo, lookAtRows } = can;
export const { forecast, forecastHelps, forecastScore, forecastTried, requestForecast } = can;
export const { personReads, planEffect, tryCondition, tryMailing } = can;
export const { servedRows, serviceTimes } = can;
export const { copyLook, reportKept, reportLook, reportSent } = can;
export const { addUpView, lookAtBoard, lookAtChart, lookAtMatrix, lookAtTotals, makeIndex } = can;
