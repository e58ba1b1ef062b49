import type { SentOut } from '@tolvek/core/mailing';
import { dataTask } from '../platform/apart.ts';

/** It is found out to whom a mailing goes, by its id: all requests of a register may have to be looked at for that. */
export const GOES_TO = dataTask<string, SentOut>('goesTo');
