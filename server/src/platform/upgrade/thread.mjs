// A thread that brings a data folder up to date, while the one that answers says that it is.
import { parentPort, workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
const { upgrade } = await import('./index.ts');
upgrade(workerData.folder, { patience: workerData.patience, onStep: (name) => parentPort.postMessage(name) });
