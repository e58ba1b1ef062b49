import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  admit,
  answersIn,
  type Coming,
  countsAnew,
  countsSince,
  type DoorDesign,
  type DoorLimit,
  isMeant,
  linkEnding,
  newDoor,
  placesLeft,
} from '../src/door/index.ts';
import type { Field, RawAnswers } from '../src/register/index.ts';
import { often } from './often.ts';
import { lets } from './plainDoor.ts';

const GROUPS = ['divers', 'lab', 'guests'];
/** What an audience may name besides groups: a person, whoever is known from outside, a condition on the profile. */
const WORDS = [...GROUPS, '@ada', '~contact', '?me.site = "pier"'];
const MINUTE = 60_000;
/** Moments near each other, so that what is earlier and later, or the same, all comes up. */
const moment = fc.integer({ min: 0, max: 12 }).map((n) => n * 5 * MINUTE);
const perhaps = fc.option(moment, { nil: null });

const limit = fc.record({
  id: fc.constantFrom('a', 'b', 'c'),
  most: fc.integer({ min: 1, max: 3 }),
  of: fc.constantFrom('all' as const, 'each' as const),
  days: fc.constantFrom(null, 1, 7),
});

/** Said now and then. */
const seldom = fc.constantFrom(...Array<undefined>(6).fill(undefined), true as const);

const anyDoor: fc.Arbitrary<DoorDesign> = fc
  .record({
    audience: fc.record({
      in: fc.oneof(
        fc.constant({ everyone: true as const }),
        fc.subarray(WORDS).map((anyOf) => ({ anyOf })),
      ),
      outOf: fc.subarray(WORDS, { maxLength: 1 }),
    }),
    proof: fc.constantFrom('sign-in' as const, 'confirmed-address' as const),
    open: fc.boolean(),
    ...{ opensAt: perhaps, closesAt: perhaps },
    finishing: fc.constantFrom(undefined, 0, 5, 15),
    limits: fc.array(limit, { maxLength: 3 }),
    closedMessage: fc.constantFrom('', 'Closed for now.'),
    onlySent: seldom,
  })
  .map((door) => ({ ...newDoor(door.proof, 'Any door'), ...door }));

const anyComer = fc.record({
  kind: fc.constantFrom('staff' as const, 'contact' as const, 'unknown' as const),
  active: fc.boolean(),
  groups: fc.subarray(GROUPS),
  personId: fc.constantFrom('ada', 'bram'),
  meets: fc.subarray(['me.site = "pier"']),
  sent: seldom,
});
const anyComing = fc.record({ now: moment, since: perhaps, shutAt: perhaps });
const anyCounts = fc.record({ all: fc.integer({ min: 0, max: 4 }), each: fc.integer({ min: 0, max: 4 }) });

describe('whom a door means', () => {
  it('is whom it lets in while it is open and has a place, of those who are known', () => {
    let [meant, not] = [0, 0];
    fc.assert(
      fc.property(
        anyDoor,
        fc.option(fc.constant(true as const), { nil: undefined }),
        anyComer,
        (any, onlySent, comer) => {
          fc.pre(comer.kind !== 'unknown');
          const door = { ...any, open: true, opensAt: null, closesAt: null, ...(onlySent ? { onlySent } : {}) };
          const is = isMeant(door, comer);
          expect(is).toBe(admit(door, { ...comer, sent: undefined }, { now: 0, zone: 'UTC' }, () => 0).admitted);
          // Whom the form was sent to comes in, whoever else is meant and whatever is counted.
          const sent = admit(door, { ...comer, sent: true }, { now: 0, zone: 'UTC' }, () => 99);
          const isKept = !comer.active || (door.proof === 'sign-in' && comer.kind !== 'staff');
          expect(sent.admitted).toBe(!isKept);
          if (is) meant += 1;
          else not += 1;
        },
      ),
      { numRuns: often(500) },
    );
    expect([meant > 0, not > 0]).toEqual([true, true]);
  });
});

describe('whom a door lets in', () => {
  it('is whom a plain reading lets in, with the same reason, until the same moment', () => {
    const seen = new Map<string, number>();
    fc.assert(
      fc.property(anyDoor, anyComer, anyComing, anyCounts, (door, comer, coming, counts) => {
        const known = comer.kind === 'unknown' ? { ...comer, groups: [], active: true } : comer;
        const used = ({ of }: Pick<DoorLimit, 'of'>): number => counts[of];
        const told = admit(door, known, { ...coming, zone: 'UTC' }, used);
        const wanted = lets(door, { ...known, ...coming }, ({ of }) => counts[of as 'all']);
        const got = told.admitted ? (told.finishBy === null ? 'in' : `in until ${told.finishBy}`) : told.why;
        expect(got).toBe(wanted);
        const kind = wanted.startsWith('in until') ? 'finishes' : wanted;
        seen.set(kind, (seen.get(kind) ?? 0) + 1);
      }),
      { numRuns: often(6_000) },
    );
    console.log(`doors: ${[...seen].map(([what, n]) => `${what} ${n}`).join(', ')}`);
    for (const what of ['in', 'finishes', 'closed', 'not-yet', 'sign-in', 'inactive', 'not-for-you', 'full'])
      expect([what, (seen.get(what) ?? 0) > 10]).toEqual([what, true]);
  });

  it('is told without anything of others: the same words however many have come, and who else may', () => {
    const told = new Map<string, number>();
    fc.assert(
      fc.property(
        anyDoor,
        anyComer,
        anyComing,
        fc.integer({ min: 3, max: 9_000 }),
        fc.integer({ min: 1, max: 9_000 }),
        (door, comer, coming, many, most) => {
          const at: Coming = { ...coming, zone: 'UTC' };
          const other: DoorDesign = {
            ...door,
            limits: door.limits.map((each) => (each.of === 'all' ? { ...each, most } : each)),
          };
          // Of others as many as there can be; of oneself nothing.
          const first = admit(door, comer, at, ({ of }) => (of === 'all' ? many : 0));
          const second = admit(other, comer, at, ({ of }) => (of === 'all' ? 9_001 : 0));
          if (first.admitted || second.admitted) return;
          told.set(first.why, (told.get(first.why) ?? 0) + 1);
          expect(english(second)).toEqual(english(first));
          const words = String(english(first.message));
          for (const group of GROUPS) expect(words).not.toContain(group);
          if (first.why === 'full') expect(words).not.toMatch(/\b\d+ (request|place)/);
        },
      ),
      { numRuns: often(3_000) },
    );
    console.log(`refusals: ${[...told].map(([what, n]) => `${what} ${n}`).join(', ')}`);
    for (const why of ['full', 'closed', 'not-for-you', 'not-yet'] as const)
      expect([why, (told.get(why) ?? 0) > 10]).toEqual([why, true]);
  });
});

describe('what counts against a limit', () => {
  it('begins where a calendar says so, and begins anew where it says next', () => {
    const zones = ['UTC', 'Europe/Berlin', 'America/St_Johns', 'Pacific/Apia'];
    fc.assert(
      fc.property(
        fc.integer({ min: Date.parse('2025-01-01'), max: Date.parse('2028-12-31') }),
        fc.constantFrom(...zones),
        fc.constantFrom('week' as const, 'month' as const, 'year' as const),
        (now, zone, period) => {
          // Another way: what the wall clock of the zone writes, as Intl has it.
          const written = (at: number): string => new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(at);
          const since = countsSince({ days: null, period }, now, zone) ?? Number.NaN;
          const day = written(since);
          const today = written(now);
          expect(since <= now).toBe(true);
          expect(written(since - 1) < day).toBe(true);
          if (period === 'year') expect(day).toBe(`${today.slice(0, 4)}-01-01`);
          if (period === 'month') expect(day).toBe(`${today.slice(0, 7)}-01`);
          if (period === 'week') {
            expect(new Date(`${day}T12:00Z`).getUTCDay()).toBe(1);
            expect(Date.parse(today) - Date.parse(day)).toBeLessThan(7 * 24 * 60 * MINUTE);
          }
          const next = countsAnew({ id: 'a', most: 1, of: 'all', days: null, period }, now, zone) ?? '';
          expect(next > today).toBe(true);
          const length = { week: [7, 7], month: [28, 31], year: [365, 366] }[period];
          const days = (Date.parse(next) - Date.parse(day)) / (24 * 60 * MINUTE);
          expect(days >= (length[0] ?? 0) && days <= (length[1] ?? 0)).toBe(true);
        },
      ),
      { numRuns: often(1_500) },
    );
  });

  it('leaves as many places as the tightest limit for all', () => {
    fc.assert(
      fc.property(anyDoor, fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 3, maxLength: 3 }), (door, counts) => {
        const used = ({ id }: DoorLimit): number => counts['abc'.indexOf(id)] ?? 0;
        const left = placesLeft(door, used);
        const all = door.limits.filter(({ of }) => of === 'all');
        expect(left === null).toBe(all.length === 0);
        for (const each of all) expect(left ?? 0).toBeLessThanOrEqual(Math.max(0, each.most - used(each)));
        if (left !== null) expect(all.some((each) => left === Math.max(0, each.most - used(each)))).toBe(true);
      }),
      { numRuns: often(500) },
    );
  });
});

describe('answers in an address', () => {
  const fields: readonly Field[] = [
    { key: 'name', label: 'Name', type: { kind: 'text' }, source: 'asked' },
    { key: 'n', label: 'How many', type: { kind: 'number', places: 0 }, source: 'asked' },
    {
      ...{ key: 'ages', label: 'Ages', source: 'asked' },
      type: {
        kind: 'choices',
        options: [
          { key: 'small', label: 'Small' },
          { key: 'big', label: 'Big' },
        ],
      },
    },
    { key: 'secret', label: 'Secret', type: { kind: 'text' }, source: 'desk-only' },
    { key: 'files', label: 'Files', type: { kind: 'files', only: 'any' }, source: 'asked' },
  ] as readonly Field[];
  const read = (ending: string, prefills: readonly string[]): RawAnswers =>
    answersIn(fields, prefills, new URLSearchParams(ending));

  it('come back as they were written, for what allows them and nothing else', () => {
    fc.assert(
      fc.property(
        fc.record({
          name: fc.string({ minLength: 1, maxLength: 60, unit: 'grapheme' }).filter((text) => text.trim() !== ''),
          n: fc.integer({ min: 0, max: 999 }).map(String),
          ages: fc.uniqueArray(fc.constantFrom('small', 'big'), { minLength: 1 }),
        }),
        fc.subarray(['name', 'n', 'ages']),
        (answers, prefills) => {
          const ending = linkEnding({ ...answers, secret: 'told', files: 'a-file' });
          const wanted = Object.fromEntries(Object.entries(answers).filter(([key]) => prefills.includes(key)));
          // A long enough name is no text of one line; what can’t be read is left out.
          const got = read(ending, [...prefills, 'secret', 'files']);
          expect(got).toEqual(/[\r\n]/.test(answers.name) ? { ...got, ...wanted } : wanted);
        },
      ),
      { numRuns: often(500) },
    );
    expect(read('?a.n=many&a.name=Ida&name=Other&a.ages=huge', ['n', 'name', 'ages'])).toEqual({ name: 'Ida' });
    expect([linkEnding({}), linkEnding({ name: null, n: '' })]).toEqual(['', '']);
  });
});
