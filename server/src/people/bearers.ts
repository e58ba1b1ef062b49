import { stateOfBearer } from '../platform/bearers.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { namesOf } from './queries.ts';

interface BearerRow {
  readonly id: string;
  readonly name: string;
  readonly madeBy: string;
  readonly madeAt: number;
  readonly usedAt: number | null;
  readonly expiresAt: number | null;
  readonly endedAt: number | null;
}

const isoOr = (at: number | null): string | null => (at === null ? null : iso(at));

/** Tokens and keys as they are listed: by whom each was made, and whether it works. */
export function bearersTold(db: Reader, rows: readonly BearerRow[], now: number) {
  const names = namesOf(
    db,
    rows.map(({ madeBy }) => madeBy),
  );
  return rows.map((row) => ({
    ...{ id: row.id, name: row.name, by: names.get(row.madeBy) ?? '', made: iso(row.madeAt) },
    ...{ used: isoOr(row.usedAt), ends: isoOr(row.expiresAt), state: stateOfBearer(row, now) },
  }));
}
