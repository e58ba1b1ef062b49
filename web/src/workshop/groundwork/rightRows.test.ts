import { RIGHTS } from '@tolvek/core/people';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { reachOf, rightsOf, rowsOf, toReach } from './rightRows.ts';

it('has every right in exactly one line, in the order in which rights are told', () => {
  expect(rowsOf(RIGHTS).flatMap(rightsOf)).toEqual(RIGHTS);
  expect(rowsOf(['read:all', 'audit']).map(({ right }) => right)).toEqual(['read', 'audit']);
});

it('lets a right reach as far as is wanted, whatever was given before, and touches no other', () => {
  const seen = new Set<string>();
  fc.assert(
    fc.property(fc.subarray([...RIGHTS]), fc.nat(30), fc.nat(3), (given, at, how) => {
      const rows = rowsOf(RIGHTS).filter((row) => row.kind === 'requests');
      const row = rows[at % rows.length];
      if (row?.kind !== 'requests') throw new Error('No line.');
      const wanted = [null, ...row.reaches][how % (row.reaches.length + 1)] ?? null;
      const { give, take } = toReach(row.right, wanted, given);
      const after = [...given.filter((each) => !take.includes(each)), ...give];
      expect(reachOf(row.right, after)).toBe(wanted);
      expect(after.filter((each) => each.startsWith(`${row.right}:`))).toHaveLength(wanted === null ? 0 : 1);
      const others = (rights: readonly string[]) => rights.filter((each) => !each.startsWith(`${row.right}:`));
      expect(others(after)).toEqual(others(given));
      seen.add(`${row.right} ${wanted}`);
    }),
    { numRuns: 600 },
  );
  expect(seen.size).toBe(RIGHTS.filter((right) => right.includes(':')).length + 9);
});
