import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  circumstancesOf,
  classesOf,
  mayAsk,
  openFields,
  type Purpose,
  planned,
  prepareAccess,
  projectionFor,
} from '../src/access/index.ts';
import { protectionOf } from '../src/form/index.ts';
import type { Viewer } from '../src/people/index.ts';
import type { Field } from '../src/register/index.ts';
import {
  anyBase,
  anyLook,
  anyPlaced,
  anyReaders,
  anyRules,
  everyLook,
  slowLevel,
  slowReads,
  takenBy,
} from './anyPlan.ts';
import { often } from './often.ts';

const FIELDS: readonly Field[] = [
  { key: 'a', label: 'A', type: { kind: 'text' }, source: 'asked' },
  { key: 'b', label: 'B', type: { kind: 'text' }, source: 'desk-only' },
  { key: 'c', label: 'C', type: { kind: 'text' }, source: 'asked' },
  { key: 'd', label: 'D', type: { kind: 'text' }, source: 'computed', formula: 'b' },
];
const KEYS = FIELDS.map(({ key }) => key);
const VALUES = { a: '1', b: '2', c: '3', d: '2' };
const PURPOSES = {
  ...{ working: ['sheet', 'changing'], browsing: ['list'], searching: ['counting'], 'taking-out': ['taking-out'] },
} as const satisfies Record<string, readonly Purpose[]>;
const RANK = { hidden: 0, read: 1, write: 2 };

test('what is revealed is what a slow reading of the published words says, for any plan, person, stage and request', () => {
  const counts = { hidden: 0, read: 0, write: 0, empty: 0, unplaced: 0, built: 0, along: 0, calledIn: 0 };
  fc.assert(
    fc.property(
      anyRules(KEYS),
      fc.array(anyLook, { minLength: 4, maxLength: 12 }),
      fc.boolean(),
      anyBase,
      anyPlaced(KEYS),
      anyReaders(),
      (made, looks, empty, base, placed, readers) => {
        const rules = empty ? made.map((rule) => ({ ...rule, looksEmpty: true as const })) : made;
        const plan = { rules, readers, ...(base ? { base } : {}), ...(placed ? { placed } : {}) };
        const protection = protectionOf(plan, { fields: FIELDS, release: null });
        for (const look of looks) {
          if (look.activity === 'letters') continue;
          const along = !look.isDesk && slowReads(readers, look);
          const seen = along ? { ...look, isDesk: true } : look;
          const { viewer, relation, at } = takenBy(look);
          for (const purpose of PURPOSES[look.activity]) {
            const reading = prepareAccess(protection)({ viewer, relation, purpose, at });
            const { fields } = reading.reveal(VALUES, () => undefined);
            const projected = projectionFor(protection, { viewer, relation, purpose })(VALUES, at);
            expect(Object.keys(projected).sort()).toEqual([...reading.readable].sort());
            for (const field of FIELDS) {
              const own = slowLevel(rules, field, seen, base, placed);
              const from = field.key === 'd' ? slowLevel(rules, FIELDS[1] as Field, seen, base, placed) : 'write';
              // What is computed is never written, and read by who may read what it is computed from.
              const wanted =
                from === 'hidden' || own === 'hidden'
                  ? 'hidden'
                  : field.key === 'd' || (along && own === 'write')
                    ? 'read'
                    : own;
              const shown = fields.find(({ key }) => key === field.key);
              expect(reading.levelOf(field.key).level).toBe(wanted);
              expect(reading.readable.has(field.key)).toBe(wanted !== 'hidden');
              expect(shown?.value ?? null).toBe(wanted === 'hidden' ? null : VALUES[field.key as 'a']);
              expect(shown?.writable ?? false).toBe(wanted === 'write');
              counts[wanted] += 1;
              if (shown && wanted === 'hidden') counts.empty += 1;
              const isNew = placed !== undefined && !placed.includes(field.key);
              if (along && wanted === 'read') counts.along += 1;
              if (look.calledIn && wanted === 'read') counts.calledIn += 1;
              if (isNew && wanted === 'hidden') counts.unplaced += 1;
              if (isNew && field.key === 'b' && wanted !== 'hidden') counts.built += 1;
            }
          }
        }
      },
    ),
    { numRuns: often(1_500) },
  );
  console.log('revealed to random people by random plans:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(500));
});

test('the kinds a plan tells apart are all there are, and what is open is open to everybody, in all that can be', () => {
  const counts = { open: 0, closed: 0, kinds: 0, asked: 0, unknown: 0 };
  const usual = everyLook().filter(
    ({ groups, as, personId }) =>
      personId !== 'p2' && groups.every((each) => each === 'x') && as.every((each) => each === 'handler'),
  );
  const everybody = usual.flatMap((look) => [
    // Who is called in is from outside.
    ...(look.calledIn ? [] : [look, { ...look, meets: ['me.badge'] }]),
    ...(look.isDesk
      ? []
      : [
          { ...look, kind: 'contact' as const },
          { ...look, kind: 'contact' as const, meets: ['me.badge'] },
        ]),
  ]);
  const builders = everybody.flatMap((look) => (look.isDesk && !look.isRequester ? [{ ...look, builds: true }] : []));
  const rules = anyRules(['a', 'b', 'c'], { most: 3, words: ['x', '@p1', '~handler', '?me.badge', '~contact'] });
  fc.assert(
    fc.property(rules, fc.integer(), anyBase, anyPlaced(['a', 'b', 'c']), (made, pick, base, placed) => {
      const plan = { rules: made, ...(base ? { base } : {}), ...(placed ? { placed } : {}) };
      const toBuilders = placed !== undefined && !placed.includes('b');
      // Whoever builds forms is told apart where something is left to them.
      const looks = toBuilders ? [...everybody, ...builders] : everybody;
      const protection = protectionOf(plan, { fields: FIELDS.slice(0, 3), release: null });
      const classes = classesOf({ rules: made }, undefined, toBuilders);
      expect(classes).not.toBe(null);
      const levels = (of: (field: Field) => string): string => FIELDS.slice(0, 3).map(of).join(' ');
      const told = new Set(
        classes?.map(
          (each) =>
            `${each.relation.isDesk}${each.relation.isRequester} ${levels((field) => planned(field, plan, each, each.relation, each.at).level)}`,
        ),
      );
      const slow = looks.map((look) => levels((field) => slowLevel(made, field, look, base, placed)));
      const all = new Set(looks.map(({ isDesk, isRequester }, index) => `${isDesk}${isRequester} ${slow[index]}`));
      expect([...told].sort()).toEqual([...all].sort());
      counts.kinds += told.size;
      const ofDesk = looks.flatMap(({ isDesk, isRequester, activity }, index) =>
        isDesk && !isRequester ? [{ activity, levels: (slow[index] as string).split(' ') }] : [],
      );
      for (const [place, field] of FIELDS.slice(0, 3).entries())
        for (const activities of [undefined, ['working'] as const]) {
          const among = ofDesk.filter(({ activity }) => !activities || activity === 'working');
          const isOpen = among.every((each) => each.levels[place] !== 'hidden');
          expect([field.key, openFields(protection, activities).includes(field)]).toEqual([field.key, isOpen]);
          counts[isOpen ? 'open' : 'closed'] += 1;
        }
      // Whoever asks something of all requests is told of what they may read on each of them, and of nothing else.
      const one = looks[Math.abs(pick) % looks.length] as (typeof looks)[number];
      const { personId, groups, meets = [] } = one;
      const viewer: Viewer = { personId, kind: 'staff', rights: [], groups, meets };
      for (const [place, { key }] of FIELDS.slice(0, 3).entries()) {
        const { unknown } = mayAsk([key], protection, viewer);
        const knows = looks.every((each, index) => {
          const isOne =
            each.personId === personId &&
            each.groups.join() === groups.join() &&
            (each.meets ?? []).join() === meets.join();
          const asks = each.activity === 'searching' && each.isDesk && !each.isRequester;
          return !isOne || !asks || (slow[index] as string).split(' ')[place] !== 'hidden';
        });
        expect([key, unknown.length === 0]).toEqual([key, knows]);
        counts[knows ? 'asked' : 'unknown'] += 1;
      }
    }),
    { numRuns: often(60) },
  );
  console.log('kinds of viewer and what is open to all:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(20));
}, 60_000);

test('circumstances too many to be looked through are not, and hide what hangs on them', () => {
  const rules = Array.from({ length: 13 }, (_, n) => ({
    ...{ id: `${n}`, name: `R${n}`, fields: ['a'], level: 'read' as const },
    audience: { in: { everyone: true as const }, outOf: [] },
    exceptions: [{ id: 'e', level: 'hidden' as const, when: `a = "${n}"` }],
  }));
  expect(circumstancesOf(rules)).toBe(null);
  const protection = protectionOf({ rules }, { fields: FIELDS, release: null });
  const viewer: Viewer = { personId: 'p', kind: 'staff', rights: [], groups: [] };
  const relation = { isDesk: true, isRequester: false };
  const reading = (at: { stage: string; day: string; holds: () => boolean } | null) =>
    prepareAccess(protection)({ viewer, relation, purpose: 'sheet', at }).levelOf('a').level;
  expect([reading(null), reading({ stage: '', day: '', holds: () => false })]).toEqual(['hidden', 'read']);
  expect(RANK[reading({ stage: '', day: '', holds: () => true })]).toBe(0);
  expect(openFields(protection).map(({ key }) => key)).not.toContain('a');
});
