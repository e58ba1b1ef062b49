import type { Finding, FormDesign, Surroundings } from '@tolvek/core/form';
import type { lookAtRows } from '../intake/takeInRows.ts';
import { dataTask, type RestAfterNow } from '../platform/apart.ts';
import { task } from '../platform/workers.ts';
import type { tryMailing } from './mailings.ts';
import type { planEffect } from './planDraft.ts';
import type { fieldReaders, personReads } from './planReaders.ts';
import type { tryCondition } from './tries.ts';

/** What a command takes besides what it works on. */
type Rest<Command> = Command extends (on: never, ...rest: infer Taken) => unknown ? Taken : never;

/** A draft is looked through. */
export const LOOK_THROUGH = task<{ readonly design: FormDesign; readonly around: Surroundings }, readonly Finding[]>(
  'findings',
  'thinking',
);

/** Rows of a sheet are looked at, as they would be taken in. */
export const LOOK_AT_ROWS = dataTask<RestAfterNow<typeof lookAtRows>, ReturnType<typeof lookAtRows>>('lookAtRows');

/** It is looked at whom a mailing would go to. */
export const TRY_MAILING = dataTask<Rest<typeof tryMailing>, ReturnType<typeof tryMailing>>('tryMailing');

/** A condition is tried on what is there. */
export const TRY_CONDITION = dataTask<Rest<typeof tryCondition>, ReturnType<typeof tryCondition>>('tryCondition');

/** What a written access plan would change is counted. */
export const PLAN_EFFECT = dataTask<Rest<typeof planEffect>, ReturnType<typeof planEffect>>('planEffect');

/** Who can see and change a field, and what somebody can see and change, is counted. */
export const FIELD_READERS = dataTask<Rest<typeof fieldReaders>, ReturnType<typeof fieldReaders>>('fieldReaders');
export const PERSON_READS = dataTask<Rest<typeof personReads>, ReturnType<typeof personReads>>('personReads');
