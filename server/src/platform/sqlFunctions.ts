import { dateAt } from '@tolvek/core/deadline';
import { plainLetters } from '@tolvek/core/people';
import type Sqlite from 'better-sqlite3';

/** A text as it is put in order: in small letters, without accents. */
export const FOLDED = 'folded';
/** The day (ISO 8601) of a moment (epoch ms) in a zone. */
export const DAY_IN = 'day_in';

/** What SQLite has to ask for, on a connection: each gives the same for the same, and nothing for nothing. */
export function addFunctions(client: Sqlite.Database): void {
  client.function(FOLDED, { deterministic: true }, (text: unknown) =>
    typeof text === 'string' ? plainLetters(text) : text,
  );
  const days = new Map<string, string>();
  client.function(DAY_IN, { deterministic: true }, (moment: unknown, zone: unknown) => {
    if (typeof moment !== 'number' || typeof zone !== 'string') return null;
    const key = `${Math.floor(moment / QUARTER)} ${zone}`;
    let day = days.get(key);
    if (day === undefined) {
      if (days.size >= DAYS_KEPT) days.clear();
      days.set(key, (day = dateAt(moment, zone)));
    }
    return day;
  });
}

/** Clocks differ by whole quarters of an hour from each other, since 1972 at the latest: within one, it is the same day. */
const QUARTER = 15 * 60_000;
const DAYS_KEPT = 100_000;
