import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { FieldValue, Phase } from '../register/index.ts';
import { placeFor, takingPart, withPlaceOf } from './namedActions.ts';

const who = fc.record({
  personId: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
  isStaff: fc.boolean(),
  groups: fc.subarray(['boats', 'lab']),
});
const step = fc.record({
  who,
  takes: fc.boolean(),
  phase: fc.constantFrom<Phase>('arrived', 'working', 'paused', 'finished'),
});

it('gives places as a doorkeeper with a list would, whoever comes and goes', () => {
  const seen = { in: 0, out: 0, full: 0, stranger: 0, finished: 0 };
  fc.assert(
    fc.property(
      fc.array(step, { minLength: 20, maxLength: 40 }),
      fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }),
      fc.subarray(['boats', 'lab', 'stores']),
      (steps, most, from) => {
        const field = { type: { kind: 'people' as const, from, ...(most === undefined ? {} : { most }) } };
        const door: string[] = [];
        let value: FieldValue | undefined;
        for (const { who: comer, takes, phase } of steps) {
          const { personId, isStaff, groups } = comer;
          const place = placeFor(field, value, comer, phase);
          const mayEnter = isStaff && (from.length === 0 || groups.filter((group) => from.includes(group)).length > 0);
          const isRoom = most === undefined || door.length < most;
          const is = door.indexOf(personId);
          const can = phase !== 'finished' && (is >= 0 || (mayEnter && isRoom));
          expect([place.isIn, place.whyNot === null]).toEqual([is >= 0, can]);
          expect(place.left).toBe(most === undefined ? null : most - door.length);
          if (phase === 'finished') seen.finished += 1;
          else if (is < 0 && !mayEnter) seen.stranger += 1;
          else if (is < 0 && !isRoom) seen.full += 1;
          if (!can || place.isIn === takes) continue;
          value = withPlaceOf(value, personId, takes) ?? undefined;
          if (takes) door.push(personId);
          else door.splice(is, 1);
          seen[takes ? 'in' : 'out'] += 1;
          expect(takingPart(value)).toEqual(door);
        }
      },
    ),
  );
  for (const [what, times] of Object.entries(seen)) expect([what, times > 20]).toEqual([what, true]);
});

it('has no places in a field that is for something else', () => {
  const me = { personId: 'a', isStaff: true, groups: [] };
  for (const value of [undefined, 'a', 7, ['a']] as const)
    expect(placeFor({ type: { kind: 'text' } }, value, me, 'arrived')).toMatchObject({ isIn: false, left: null });
  expect([takingPart('a'), takingPart([{ x: 1 }]), withPlaceOf(['a'], 'a', false)]).toEqual([[], [], null]);
});
