import * as german from 'chrono-node/de';
import { GB } from 'chrono-node/en';
import { LANGUAGES, type Language, language } from '../wire/words.ts';

/** `Do., 3. Dezember`: a day of the week that was shortened. */
const SHORTENED_DAY = /^(\p{L}{2})\.,?\s/u;

/** `3.12.` and `3.12`: a day of a month as much of Europe writes it, where a time would read alike. */
const DAY_OF_MONTH = /^(\d{1,2})\.(\d{1,2})\.?$/;

/**
 * What was typed, read as people write days and moments: `3 Dec`, `3.12.2026`, `next friday`,
 * `tomorrow 14:30`, `3. Dez`, `morgen um 14:30`. Null where that is not all it says, or where it says no day.
 *
 * @param now wall clock at the desk, `YYYY-MM-DDTHH:MM`: what is ahead is meant where both could be.
 * @param isAhead false where a day that has been is asked for.
 */
function readBy(parser: Parser, text: string, now: string, isAhead: boolean) {
  const typed = text.trim().replace(DAY_OF_MONTH, '$1/$2').replace(SHORTENED_DAY, '$1, ');
  const at = new Date(`${now.slice(0, 16)}:00Z`);
  const [found] = parser.parse(typed, { instant: at, timezone: 0 }, { forwardDate: isAhead });
  // A time alone would be today's: a day has to be said.
  const saysDay = found && (found.start.isCertain('day') || found.start.isCertain('weekday'));
  return saysDay && found.text.length === typed.length && found.end === null ? found.start : null;
}

type Parser = Pick<typeof GB, 'parse'>;

/** What reads each language; who writes in another one than they read is understood as well. */
const PARSERS: Readonly<Record<Language, Parser>> = { en: GB, de: german };

/** What was typed in the language of its reader, else in another one of ours. */
function read(text: string, now: string, isAhead = true) {
  const own = language();
  for (const each of [own, ...LANGUAGES.filter((other) => other !== own)]) {
    const found = readBy(PARSERS[each], text, now, isAhead);
    if (found) return found;
  }
  return null;
}

const two = (part: number | null): string => String(part ?? 0).padStart(2, '0');

/** A day as `YYYY-MM-DD`; null for what is none. `isPast`: a day that has been is meant where both could be. */
export function readDay(text: string, today: string, isPast = false): string | null {
  const day = read(text, `${today}T00:00`, !isPast);
  if (!day) return null;
  const rest = `${two(day.get('month'))}-${two(day.get('day'))}`;
  const year = day.get('year') ?? 0;
  const isLater = isPast && !day.isCertain('year') && `${year}-${rest}` > today;
  return `${isLater ? year - 1 : year}-${rest}`;
}

/** A moment as `YYYY-MM-DDTHH:MM`; null for what is none, or lacks its time. */
export function readMoment(text: string, now: string): string | null {
  const moment = read(text, now);
  if (!moment?.isCertain('hour')) return null;
  const day = `${moment.get('year')}-${two(moment.get('month'))}-${two(moment.get('day'))}`;
  return `${day}T${two(moment.get('hour'))}:${two(moment.get('minute'))}`;
}
