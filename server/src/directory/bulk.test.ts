import fc from 'fast-check';
import { expect, it } from 'vitest';
import { orderOf } from './bulk.ts';

type Operation = Parameters<typeof orderOf>[0][number];
const operation = (bulkId: string | null, ...names: readonly string[]): Operation => ({
  bulkId,
  names: new Set(names),
});

it('operations are done in the order they were sent, but each behind what it names', () => {
  expect(orderOf([operation('a', 'b'), operation('b', 'c'), operation(null), operation('c')])).toEqual([3, 1, 0, 2]);
  expect(orderOf([operation('a', 'nobody'), operation('b', 'b')])).toEqual([0, 1]);
});

it('every operation is done once, whatever names what; where nothing stands in a circle, each behind all it names', () => {
  const seen = { plain: 0, circles: 0 };
  const some = fc
    .integer({ min: 1, max: 12 })
    .chain((length) =>
      fc.array(fc.tuple(fc.nat(length - 1), fc.nat(length - 1)), { maxLength: 16 }).map((names) => ({ length, names })),
    );
  fc.assert(
    fc.property(some, ({ length, names }) => {
      const operations = Array.from({ length }, (_, at) =>
        operation(String(at), ...names.flatMap(([from, to]) => (from === at && to !== at ? [String(to)] : []))),
      );
      const order = orderOf(operations);
      expect([...order].sort((a, b) => a - b)).toEqual(operations.map((_, at) => at));
      // The slow way to find a circle: nobody is left whose all have been taken away.
      const left = new Set(operations.keys());
      for (let taken = true; taken; ) {
        const free = [...left].find((at) =>
          [...(operations[at]?.names ?? [])].every((name) => !left.has(Number(name))),
        );
        taken = free !== undefined && left.delete(free);
      }
      seen[left.size === 0 ? 'plain' : 'circles'] += 1;
      if (left.size > 0) return;
      for (const [at, { names: named }] of operations.entries())
        for (const name of named) expect(order.indexOf(Number(name))).toBeLessThan(order.indexOf(at));
    }),
    { numRuns: 500 },
  );
  console.log('orders with and without circles', seen);
  expect(Object.values(seen).every((count) => count > 20)).toBe(true);
});

it('a chain as long as a whole Bulk is put in order', () => {
  const chain = Array.from({ length: 1_000 }, (_, at) => operation(String(at), String(at + 1)));
  expect(orderOf(chain)).toEqual(chain.map((_, at) => 999 - at));
});
