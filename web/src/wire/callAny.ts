import { heads } from '@tolvek/contract/heads';
import { callOf } from './call.ts';

/** How any route is called, for pages that come after the first. */
export const call = callOf(heads);
