import { momentIn } from '@tolvek/words/speech';
import { meApi } from './me.ts';
import { language } from './words.ts';

/**
 * A moment (ISO 8601) on the desk’s own clock, wherever the reader sits: day and time, or the day
 * alone.
 */
export function DeskMoment({ at, show = 'moment' }: { at: string; show?: 'moment' | 'day' }) {
  const { data: me } = meApi.useMeQuery();
  const zone = me?.desk.zone ?? 'UTC';
  return <time dateTime={at}>{momentIn(language(), show === 'day' ? 'date' : 'moment', at, zone)}</time>;
}
