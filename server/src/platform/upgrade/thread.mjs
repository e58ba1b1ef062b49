// A thread that brings a data folder up to date begins here: it learns to read TypeScript.
import { register } from 'tsx/esm/api';

register();
await import('./inThread.ts');
