import fc from 'fast-check';
import { expect, it } from 'vitest';
import { Queue } from './queue.ts';

it('gives out the nearest first, as a list that is put in order each time', () => {
  let longest = 0;
  fc.assert(
    fc.property(
      fc.array(fc.option(fc.integer({ min: 0, max: 30 }), { freq: 5 }), { minLength: 40, maxLength: 60 }),
      (steps) => {
        const queue = new Queue();
        let list: { end: number; of: number }[] = [];
        for (const [of, end] of steps.entries()) {
          longest = Math.max(longest, list.length);
          expect([queue.size, queue.nearest]).toEqual([
            list.length,
            list.reduce((least, each) => Math.min(least, each.end), Number.POSITIVE_INFINITY),
          ]);
          if (end !== null) {
            queue.add(end, of);
            list = [...list, { end, of }];
          } else if (list.length > 0) {
            const { nearest } = queue;
            const taken = queue.take();
            expect(list.find((each) => each.of === taken)?.end).toBe(nearest);
            list = list.filter((each) => each.of !== taken);
          }
        }
        queue.clear();
        expect(queue.size).toBe(0);
      },
    ),
  );
  expect(longest).toBeGreaterThan(10);
});
