import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, expect, test } from 'vitest';
import { openDatabase } from '../platform/database.ts';
import { eachRequest, stretchesOf } from './eachRequest.ts';
import { insertRow } from './fixture.ts';
import { requests } from './tables.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-each-'));
const db = openDatabase(folder);
db.$client.pragma('foreign_keys = OFF');
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

test('requests gone through in pages and counted in stretches are all of them, each once, the oldest first', () => {
  const met = { several: 0, together: 0 };
  fc.assert(
    fc.property(
      // Few moments, so that many arrive in the same.
      fc.array(fc.record({ at: fc.nat(6), team: fc.constantFrom('lab', 'boats') }), { minLength: 12, maxLength: 40 }),
      fc.integer({ min: 1, max: 9 }),
      (arrived, size) => {
        db.$client.exec('DELETE FROM requests');
        for (const [place, { at, team }] of arrived.entries())
          insertRow(db.$client, `r${String((place * 7) % 41).padStart(2, '0')}`, { created_at: at, team });
        const inLab = eq(requests.team, 'lab');
        const wanted = db
          .select({ id: requests.id, at: requests.createdAt })
          .from(requests)
          .where(inLab)
          .all()
          .sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1))
          .map(({ id }) => id);
        expect([...eachRequest(db, inLab)].map(({ id }) => id)).toEqual(wanted);
        const stretches = [...stretchesOf(db, inLab, size)].map((stretch) =>
          db
            .select({ id: requests.id })
            .from(requests)
            .where(stretch)
            .all()
            .map(({ id }) => id),
        );
        for (const stretch of stretches) expect(stretch.length).toBeLessThanOrEqual(size);
        expect(stretches.flatMap((stretch) => stretch.sort((a, b) => wanted.indexOf(a) - wanted.indexOf(b)))).toEqual(
          wanted,
        );
        if (stretches.length > 2) met.several += 1;
        if (wanted.length > new Set(arrived.map(({ at }) => at)).size) met.together += 1;
      },
    ),
    { numRuns: 200 },
  );
  console.log('stretches', met);
  expect(Math.min(...Object.values(met))).toBeGreaterThan(20);
});
