import { meApi } from '../wire/me.ts';
import { dayMeant } from './DateInput.tsx';

/** Two days as typed; empty where none is said. */
export interface Days {
  readonly from: string;
  readonly until: string;
}

/** What a first and a last day mean as they were typed, once both are read. */
export function useDaysMeant(): (days: Days) => Promise<Days> {
  const { data: me } = meApi.useMeQuery();
  const today = (me?.desk.now ?? '').slice(0, 10);
  return async ({ from, until }) => ({ from: await dayMeant(from, today), until: await dayMeant(until, today) });
}
