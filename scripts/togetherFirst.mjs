import { together } from './together.mjs';

/** Before all tests: what they run in processes of their own is as its sources are. */
export const setup = () => together();
