import { said } from '@tolvek/words';
import { EMPTY, isBlank, type KindWork, TEXT_WORK, wrong } from './kind.ts';

/**
 * The prefix as it stands on a day: `SA-{year}-` is `SA-2026-` in 2026. Numbers are counted by it.
 */
export const numberPrefix = (prefix: string, today: string): string => prefix.replaceAll('{year}', today.slice(0, 4));

/** The number so-and-so many with a prefix: `SA-2026-0042`. */
export const numberWith = (prefix: string, digits: number, count: number): string =>
  `${prefix}${String(count).padStart(digits, '0')}`;

/** A number the house gives out; nobody types it. */
export const runningNumber: KindWork<'running-number'> = {
  ...TEXT_WORK,
  read: (raw) => (isBlank(raw) ? EMPTY : wrong(said('answers:numberIsGiven'), said('answers:removeIt'))),
};
