import { setImmediate as nextTime } from 'node:timers/promises';
import { expect, test } from 'vitest';
import { answerLeaves, aTurn, inGroups, inTurns } from './turns.ts';

test('each time round one has its turn; callers come first, and long work goes on all the same', async () => {
  const order: string[] = [];
  const all = Promise.all([
    ...Array.from({ length: 3 }, (_, n) => aTurn('long work').then(() => order.push(`long ${n}`))),
    ...Array.from({ length: 8 }, (_, n) => aTurn('caller').then(() => order.push(`caller ${n}`))),
  ]);
  const had: number[] = [];
  while (order.length < 11) {
    await nextTime();
    had.push(order.length);
  }
  await all;
  expect(Math.max(...had.map((n, at) => n - (had[at - 1] ?? 0)))).toBe(1);
  const callers = order.filter((each) => each.startsWith('caller'));
  expect(callers).toEqual(Array.from({ length: 8 }, (_, n) => `caller ${n}`));
  expect(order.indexOf('long 0')).toBeLessThanOrEqual(5);
  expect(order.at(-1)).toBe('long 2');
});

test('what can wait goes at once where nobody else does, and after eight pieces of long work where some wait', async () => {
  const alone = aTurn('what can wait').then(() => true);
  await nextTime();
  await nextTime();
  expect(await Promise.race([alone, Promise.resolve(false)])).toBe(true);
  const order: string[] = [];
  await Promise.all([
    ...Array.from({ length: 3 }, () => aTurn('what can wait').then(() => order.push('rest'))),
    ...Array.from({ length: 20 }, () => aTurn('long work').then(() => order.push('long'))),
    ...Array.from({ length: 4 }, () => aTurn('caller').then(() => order.push('caller'))),
  ]);
  const places = order.flatMap((each, at) => (each === 'rest' ? [at] : []));
  const longBefore = places.map((place) => order.slice(0, place).filter((each) => each === 'long').length);
  expect(longBefore.slice(1).map((n, at) => n - (longBefore[at] ?? 0))).toEqual([8, expect.any(Number)]);
  expect(longBefore[0]).toBeLessThanOrEqual(8);
  expect(longBefore[2]).toBeLessThanOrEqual(20);
  expect(order.indexOf('caller')).toBeLessThan(2);
});

test('long work lets an answer out of the house first, and goes on when one never is', async () => {
  const order: string[] = [];
  const work = aTurn('long work');
  answerLeaves();
  const asked = work.then(() => order.push('work'));
  await nextTime();
  await aTurn('caller').then(() => order.push('caller'));
  expect(order).toEqual(['caller']);
  // Whoever reads it never ends: the next piece goes on all the same.
  await asked;
  await aTurn('long work');
  expect(order).toEqual(['caller', 'work']);
});

test('things gone through in groups and in turns are all of them, in their order', async () => {
  const things = Array.from({ length: 12 }, (_, n) => n);
  const groups: (readonly number[])[] = [];
  for await (const group of inGroups(things)) groups.push(group);
  expect(groups.flat()).toEqual(things);
  const seen: number[] = [];
  for await (const each of inTurns(things)) seen.push(each);
  expect(seen).toEqual(things);
});

test('what is stored fast is stored in large groups, and what takes long in small ones', async () => {
  const things = Array.from({ length: 300 }, (_, n) => n);
  const sizes = async (msEach: number): Promise<readonly number[]> => {
    const found: number[] = [];
    for await (const { length } of inGroups(things)) {
      found.push(length);
      const until = performance.now() + msEach * length;
      while (performance.now() < until);
    }
    return found;
  };
  const [fast, slow] = [await sizes(0), await sizes(3)];
  expect(fast[0]).toBeLessThan(10);
  expect(Math.max(...fast)).toBeGreaterThan(20);
  expect(Math.max(...fast)).toBeLessThanOrEqual(50);
  // Of what takes so long, one or two fit.
  expect(Math.max(...slow.slice(1))).toBeLessThanOrEqual(2);
});
