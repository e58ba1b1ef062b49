import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { relationTo } from '@tolvek/core/access';
import { FOR_EVERYONE, holdersOf, PACKAGES } from '@tolvek/core/people';
import { and, ne, type SQL } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, expect, test } from 'vitest';
import { openDatabase } from '../platform/database.ts';
import { insertRow } from '../request/fixture.ts';
import { requests, tallies } from '../request/tables.ts';
import { idsNear, readsMost, workedBy, worksOnAll } from './workedBy.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-worked-'));
const db = openDatabase(folder);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

const GROUPS = ['divers', 'deck', 'leads', 'office'];
const PEOPLE = ['ana', 'ben', 'cleo'];
const HOLDERS = [...GROUPS, ...PEOPLE.map((person) => `@${person}`)];
const REGISTERS = ['access', 'boats', 'purchases'];

const kept = fc.record({
  register_id: fc.constantFrom(...REGISTERS),
  requester_id: fc.constantFrom(...PEOPLE),
  team: fc.constantFrom(...GROUPS),
  handler_id: fc.constantFrom(null, ...PEOPLE),
  deciders: fc.subarray(HOLDERS).map((some) => (some.length === 0 ? null : some.toSorted().join(' '))),
});
const viewer = fc.record({
  personId: fc.constantFrom(...PEOPLE),
  kind: fc.constantFrom('staff' as const, 'staff' as const, 'staff' as const, 'contact' as const),
  rights: fc.constantFrom(FOR_EVERYONE, FOR_EVERYONE, PACKAGES.coordinator, ['change:all'] as const, []),
  groups: fc.subarray(GROUPS),
  otherwise: fc.dictionary(
    fc.constantFrom(...REGISTERS),
    fc.subarray(['read:team', 'read:all', 'change:all'] as const),
    {
      maxKeys: 2,
    },
  ),
});

test('SQLite and core agree on who works on what, whatever the registers, groups and requests', () => {
  db.$client.pragma('foreign_keys = OFF');
  const seen = { none: 0, some: 0, all: 0, near: 0 };
  fc.assert(
    fc.property(
      fc.array(kept, { minLength: 1, maxLength: 12 }),
      fc.tuple(...REGISTERS.map(() => fc.subarray(GROUPS))),
      fc.array(viewer, { minLength: 1, maxLength: 4 }),
      (made, desks, viewers) => {
        db.$client.exec('DELETE FROM requests; DELETE FROM seats');
        const seat = db.$client.prepare(
          "insert into seats (id, step_id, request_id, holder, state) values (?, 's', ?, ?, 'open')",
        );
        for (const [index, each] of made.entries()) {
          insertRow(db.$client, `r${index}`, each);
          for (const word of each.deciders?.split(' ') ?? []) seat.run(`${index} ${word}`, `r${index}`, word);
        }
        const registers = REGISTERS.map((id, index) => ({ id, deskGroups: desks[index] ?? [] }));
        for (const who of viewers) {
          const expected = made.flatMap((each, index) => {
            const parties = {
              register: each.register_id,
              requesterId: each.requester_id,
              ...{ onBehalfId: null, enteredById: null },
              handlerId: each.handler_id,
              team: each.team,
              deciders: each.deciders?.split(' ') ?? [],
              deskGroups: registers.find(({ id }) => id === each.register_id)?.deskGroups ?? [],
              followers: [],
            };
            return relationTo(parties, who).isDesk ? [`r${index}`] : [];
          });
          const looks = { registers, viewer: who, words: holdersOf(who) };
          const where = workedBy(looks, requests);
          const found = db.select({ id: requests.id }).from(requests).where(where).all();
          expect(found.map(({ id }) => id).sort()).toEqual([...expected].sort());
          if (!readsMost(who)) {
            // What is found by indexes holds all of it.
            const near = and(where, idsNear(looks, ne(requests.phase, 'finished')));
            const unfinished = and(where, ne(requests.phase, 'finished'));
            const ids = (by: SQL | undefined) => db.select({ id: requests.id }).from(requests).where(by).all();
            expect(ids(near)).toEqual(ids(unfinished));
            seen.near += 1;
          }
          expect(!worksOnAll(who) || expected.length === made.length).toBe(true);
          const counted = db.select().from(tallies).where(workedBy(looks, tallies)).all();
          expect(counted.reduce((sum, { n }) => sum + n, 0)).toBe(expected.length);
          seen[expected.length === 0 ? 'none' : expected.length === made.length ? 'all' : 'some'] += 1;
        }
      },
    ),
    { numRuns: 300 },
  );
  console.log('requests that a viewer works on', seen);
  for (const times of Object.values(seen)) expect(times).toBeGreaterThan(50);
});
