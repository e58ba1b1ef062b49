import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../platform/database.ts';
import { insertRow } from '../request/fixture.ts';
import { handledBy } from './candidates.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-handled-'));
const db = openDatabase(folder);
db.$client.pragma('foreign_keys = OFF');
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

const SOON = 1_000;
const PEOPLE = ['ana', 'ben', 'cleo'];
const kept = fc.record({
  handler_id: fc.constantFrom(null, ...PEOPLE),
  priority: fc.constantFrom('high', 'normal', 'low'),
  phase: fc.constantFrom('arrived', 'working', 'paused', 'finished'),
  due: fc.constantFrom(null, SOON - 1, SOON, SOON + 1),
  trial: fc.constantFrom(0, 0, 0, 1),
});

describe('what people handle', () => {
  it('is counted by the database as one by one: what is not finished, is no trial, and how soon it is due', () => {
    let counted = 0;
    fc.assert(
      fc.property(
        fc.array(kept, { minLength: 8, maxLength: 25 }),
        fc.subarray(PEOPLE, { minLength: 1 }),
        (rows, asked) => {
          db.$client.exec('DELETE FROM requests');
          for (const [at, row] of rows.entries()) insertRow(db.$client, `r${at}`, row);
          const found = handledBy(db, asked, SOON);
          for (const person of PEOPLE) {
            const slow: Record<string, number> = {};
            for (const { handler_id, priority, phase, due, trial } of rows) {
              if (handler_id !== person || !asked.includes(person) || phase === 'finished' || trial === 1) continue;
              const key = `${priority} ${phase} ${due !== null && due <= SOON}`;
              slow[key] = (slow[key] ?? 0) + 1;
              counted += 1;
            }
            const told = (found.get(person) ?? []).map(({ priority, phase, isPressing, count }) => [
              `${priority} ${phase} ${isPressing}`,
              count,
            ]);
            expect([person, Object.fromEntries(told)]).toEqual([person, slow]);
          }
        },
      ),
      { numRuns: 200 },
    );
    expect(counted).toBeGreaterThan(300);
  });
});
