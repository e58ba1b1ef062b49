import { DOOR, newDoor } from '@tolvek/core/door';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  changeLimit,
  countedSince,
  momentTyped,
  SINCE,
  sinceOf,
  stepOf,
  typedMoment,
  withLimit,
  withoutLimit,
  withProof,
  withSet,
  withWords,
} from './doorEdits.ts';

const door = newDoor('confirmed-address', 'Open day');

describe('limits of a door', () => {
  it('count since what was chosen, whatever they counted before', () => {
    for (const before of SINCE)
      for (const since of SINCE) {
        const limit = countedSince({ id: 'a', most: 3, of: 'each', days: null }, before);
        const changed = countedSince(limit, since);
        expect([sinceOf(changed), changed.most, changed.of]).toEqual([since, 3, 'each']);
      }
  });

  it('are added so that no two count the same, with names of their own', () => {
    let many = door;
    for (let n = 0; n < SINCE.length * 2; n += 1) many = withLimit(many);
    expect(DOOR.findings(many, null)).toEqual([]);
    expect(new Set(many.limits.map(({ id }) => id)).size).toBe(SINCE.length * 2);
    const [first] = many.limits;
    const fewer = withLimit(withoutLimit(many, first?.id ?? ''));
    expect(new Set(fewer.limits.map(({ id }) => id)).size).toBe(SINCE.length * 2);
    expect(DOOR.findings(fewer, null)).toEqual([]);
  });

  it('take the places along that they say', () => {
    const shown = { ...withLimit(door), showsPlaces: true as const };
    expect(withoutLimit(shown, 'limit-1').showsPlaces).toBeUndefined();
    const two = withLimit(shown);
    expect(withoutLimit(two, 'limit-1')).toMatchObject({ showsPlaces: true, limits: [{ id: 'limit-2' }] });
    expect(changeLimit(two, 'limit-2', (limit) => ({ ...limit, most: 99 })).limits.map(({ most }) => most)).toEqual([
      10, 99,
    ]);
  });
});

describe('what is set of a door', () => {
  it('is left out where it is what nothing says', () => {
    const said = withWords(withWords(door, 'full', 'Full.'), 'early', 'Soon.');
    expect(said.says).toEqual({ full: 'Full.', early: 'Soon.' });
    expect(withWords(withWords(said, 'full', ''), 'early', '')).toEqual(door);
    expect(withSet(withSet(door, 'finishing', 10), 'finishing', undefined)).toEqual(door);
  });

  it('has moments that come back as they were typed, but for those that a clock leaves out', () => {
    const zones = ['Europe/Berlin', 'Asia/Kolkata', 'America/New_York', 'UTC'];
    let skipped = 0;
    fc.assert(
      fc.property(
        fc.integer({ min: Date.parse('2025-01-01'), max: Date.parse('2028-01-01') }),
        fc.constantFrom(...zones),
        (at, zone) => {
          const minute = at - (at % 60_000);
          const back = momentTyped(typedMoment(minute, zone), zone);
          // Of an hour that a clock shows twice, the first one is meant.
          if (back !== minute) skipped += 1;
          expect([minute, minute - 3_600_000]).toContain(back);
        },
      ),
      { numRuns: 500 },
    );
    expect(skipped).toBeLessThan(20);
    expect(momentTyped('2026-03-29T02:30', 'Europe/Berlin')).toBeUndefined();
    expect([momentTyped('', 'UTC'), momentTyped('soon', 'UTC'), typedMoment(null, 'UTC')]).toEqual([
      null,
      undefined,
      '',
    ]);
  });
});

describe('how whoever comes shows who they are', () => {
  const all = ['device', 'each-time', 'never', 'unnamed'] as const;

  it('is one of a few, whatever it was before; what else is set stays', () => {
    const set = { ...door, whose: 'lead', follows: 'device' as const };
    for (const before of all)
      for (const how of all) {
        const { unnamed, proves, ...rest } = withProof(withProof(set, before), how);
        expect([unnamed ?? false, proves ?? null]).toEqual([
          how === 'unnamed',
          how === 'device' || how === 'unnamed' ? null : how,
        ]);
        expect(rest).toEqual(set);
      }
  });

  it('has each thing that can be wrong with a door at a question of its set-up', () => {
    const wrong = [
      ...DOOR.findings({ ...door, name: '', whose: 'x', unnamed: true, proves: 'never', follows: 'device' }, null),
      ...DOOR.findings({ ...door, proof: 'sign-in', again: ['decision'], changes: 'never', slowsRobots: true }, null),
      ...DOOR.findings({ ...withLimit(door), waits: 3, unnamed: true, embeds: ['x'] }, null),
    ];
    expect(new Set(wrong.map(({ at }) => stepOf(at)))).toEqual(new Set(['asking', 'whose', 'who', 'past']));
    expect(stepOf('limits limit-1')).toBe('who');
  });
});
