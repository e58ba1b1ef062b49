import { setImmediate as nextTime, setTimeout as pause } from 'node:timers/promises';
import { pino } from 'pino';
import { expect, test } from 'vitest';
import { Gate } from './gate.ts';
import { Job } from './jobs.ts';
import { storing } from './patience.ts';
import { Troubles } from './troubles.ts';

/** Something to be done when a test says so. */
function later(): { readonly done: Promise<void>; readonly end: () => void } {
  let end = (): void => undefined;
  const done = new Promise<void>((told) => (end = told));
  return { done, end };
}

test('holders take turns, and writers wait for all of them', async () => {
  const gate = new Gate();
  const order: string[] = [];
  const [first, second] = [later(), later()];
  const holders = [first, second].map((each, at) =>
    gate.holding(async () => {
      order.push(`thread ${at} begins`);
      await each.done;
      order.push(`thread ${at} ends`);
    }),
  );
  const writer = gate.open(10_000).then(() => order.push('writer'));
  expect(gate.isOpen).toBe(false);
  first.end();
  await holders[0];
  second.end();
  await Promise.all([...holders, writer]);
  expect(order.filter((each) => each.startsWith('thread'))).toEqual([
    'thread 0 begins',
    'thread 0 ends',
    'thread 1 begins',
    'thread 1 ends',
  ]);
  expect(order).toContain('writer');
  expect(gate.isOpen).toBe(true);
});

test('those who waited go on one each time round, and a holder that fails lets them go as well', async () => {
  const gate = new Gate();
  const house = { gate, troubles: new Troubles(pino({ level: 'silent' })) };
  const work = later();
  const held = gate.holding(async () => {
    await work.done;
    throw new Error('It failed.');
  });
  let stored = 0;
  const writers = Array.from({ length: 6 }, () => storing(house, () => void (stored += 1)));
  await pause(5);
  expect(stored).toBe(0);
  work.end();
  await expect(held).rejects.toThrow('It failed.');
  const had: number[] = [];
  while (stored < 6) {
    await nextTime();
    had.push(stored);
  }
  await Promise.all(writers);
  expect(Math.max(...had.map((n, at) => n - (had[at - 1] ?? 0)))).toBe(1);
});

test('a writer waits no longer than it may', async () => {
  const gate = new Gate();
  const work = later();
  const held = gate.holding(() => work.done);
  await gate.open(30);
  expect(gate.isOpen).toBe(false);
  work.end();
  await held;
});

test('a job is never under way twice, and what fails in it is told until it passes', async () => {
  const troubles = new Troubles(pino({ level: 'silent' }));
  const works = [later(), later()];
  let begun = 0;
  const job = new Job({ troubles }, 'the timers', async () => {
    const at = begun;
    begun += 1;
    await works[at]?.done;
    if (at === 0) throw new Error('A mistake of ours.');
  });
  job.begin();
  job.begin();
  expect(begun).toBe(1);
  works[0]?.end();
  await job.idle();
  expect(troubles.all).toHaveLength(1);
  job.begin();
  works[1]?.end();
  await job.idle();
  expect([begun, troubles.all.length]).toEqual([2, 0]);
});
