import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, expect, test } from 'vitest';
import { openDatabase } from '../platform/database.ts';
import { insertRow } from './fixture.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-tallies-'));
const { $client: db } = openDatabase(folder);
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Moments in three hours, two of them at an hour’s ends. */
const DUES = [0, 3_599_999, 3_600_000, 9_000_000] as const;

/** What is tallied of a request. */
const kept = fc.record({
  register_id: fc.constantFrom('access', 'boats'),
  form_id: fc.constantFrom('one', 'two'),
  phase: fc.constantFrom('arrived', 'working', 'paused', 'finished'),
  stage: fc.constantFrom('new', 'at_hand'),
  due: fc.constantFrom(null, ...DUES),
  team: fc.constantFrom('divers', 'deck'),
  handler_id: fc.constantFrom(null, 'ana', 'ben'),
  deciders: fc.constantFrom(null, 'leads'),
  trial: fc.constantFrom(0, 0, 0, 1),
  priority: fc.constantFrom(null, 'normal', 'high'),
});
/** What may change of one. */
const turned = fc.record(
  {
    register_id: fc.constantFrom('access', 'boats'),
    phase: fc.constantFrom('arrived', 'working', 'finished'),
    stage: fc.constantFrom('new', 'at_hand'),
    due: fc.constantFrom(null, ...DUES),
    team: fc.constantFrom('divers', 'deck'),
    handler_id: fc.constantFrom(null, 'ana'),
    deciders: fc.constantFrom(null, 'leads'),
    trial: fc.constantFrom(0, 1),
    priority: fc.constantFrom(null, 'normal', 'high'),
  },
  { requiredKeys: [] },
);
const step = fc.oneof(
  fc.record({ does: fc.constant('come' as const), as: kept }),
  fc.record({ does: fc.constant('turn' as const), which: fc.nat(), as: turned }),
  fc.record({ does: fc.constant('go' as const), which: fc.nat() }),
);

test('tallies are what counting says, after any requests that come, turn and go', () => {
  db.pragma('foreign_keys = OFF');
  const did = { come: 0, turn: 0, go: 0 };
  let due = 0;
  let handles = 0;
  fc.assert(
    fc.property(fc.array(step, { maxLength: 60, size: 'max' }), (steps) => {
      db.exec('DELETE FROM requests');
      const there: string[] = [];
      for (const each of steps) {
        if (each.does !== 'come' && there.length === 0) continue;
        did[each.does] += 1;
        if (each.does === 'come') {
          const id = `r${did.come}`;
          there.push(id);
          insertRow(db, id, each.as);
        } else {
          const at = each.which % there.length;
          const id = there[at] ?? '';
          if (each.does === 'go') {
            db.prepare('DELETE FROM requests WHERE id = ?').run(id);
            there.splice(at, 1);
          } else if (Object.keys(each.as).length > 0) {
            const columns = Object.keys(each.as);
            db.prepare(`UPDATE requests SET ${columns.map((name) => `${name} = ?`).join(', ')} WHERE id = ?`).run(
              ...Object.values(each.as),
              id,
            );
          }
        }
      }
      const by = `register_id, form_id, phase, stage, team, coalesce(handler_id, ''), coalesce(deciders, '')`;
      const counted = db.prepare(`SELECT ${by}, count(*) FROM requests WHERE trial = 0 GROUP BY ${by} ORDER BY ${by}`);
      expect(db.prepare(`SELECT * FROM tallies ORDER BY ${by}`).raw().all()).toEqual(counted.raw().all());
      const handling = db.prepare(
        `SELECT handler_id, phase, coalesce(priority, 'normal') AS weight, coalesce(due, 8640000000000000) AS at, count(*) FROM requests
         WHERE trial = 0 AND handler_id IS NOT NULL AND phase <> 'finished' GROUP BY 1, 2, 3, 4 ORDER BY 1, 2, 3, 4`,
      );
      const handled = db.prepare('SELECT * FROM handled ORDER BY 1, 2, 3, 4').raw().all();
      expect(handled).toEqual(handling.raw().all());
      handles += handled.length;
      const dueBy = `register_id, team, coalesce(handler_id, ''), coalesce(deciders, '')`;
      const counting = db.prepare(
        `SELECT ${dueBy}, due / 3600000 AS hour, count(*) FROM requests
         WHERE trial = 0 AND due IS NOT NULL AND phase IN ('arrived', 'working') GROUP BY ${dueBy}, hour ORDER BY ${dueBy}, hour`,
      );
      const ours = db.prepare(`SELECT * FROM dues ORDER BY ${dueBy}, hour`).raw().all();
      expect(ours).toEqual(counting.raw().all());
      due += ours.length;
    }),
    { numRuns: 200 },
  );
  console.log('requests that', did, `${due} counters of hours, ${handles} of what people handle`);
  expect(Math.min(due, handles)).toBeGreaterThan(100);
  for (const times of Object.values(did)) expect(times).toBeGreaterThan(500);
});
