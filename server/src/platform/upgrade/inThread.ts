import { parentPort, workerData } from 'node:worker_threads';
import { upgrade } from './index.ts';

/** Brings a data folder up to date in a thread, while the one that answers says that it is. */
upgrade(workerData.folder, { patience: workerData.patience, onStep: (name) => parentPort?.postMessage(name) });
