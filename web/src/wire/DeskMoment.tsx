import { dateInWords, momentInWords } from '@tolvek/core/deadline';
import { meApi } from './me.ts';

/**
 * A moment (ISO 8601) on the desk's own clock, wherever the reader sits: day and time, or the day
 * alone.
 */
export function DeskMoment({ at, show = 'moment' }: { at: string; show?: 'moment' | 'day' }) {
  const { data: me } = meApi.useMeQuery();
  const zone = me?.desk.zone ?? 'UTC';
  const words = show === 'day' ? dateInWords : momentInWords;
  return <time dateTime={at}>{words(Date.parse(at), zone)}</time>;
}
