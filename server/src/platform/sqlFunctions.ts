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
  client.function(DAY_IN, { deterministic: true }, (moment: unknown, zone: unknown) =>
    typeof moment === 'number' && typeof zone === 'string' ? dateAt(moment, zone) : null,
  );
}
