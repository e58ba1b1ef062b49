import { say } from '../wire/words.ts';

/** What a condition came out as: true, not true, or not known yet. */
export const verdictInWords = (verdict: boolean | null): string =>
  say(verdict === null ? 'workshop:tried.unknown' : verdict ? 'workshop:tried.true' : 'workshop:tried.false');
