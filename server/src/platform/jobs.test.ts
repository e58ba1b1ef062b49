import { pino } from 'pino';
import { expect, test } from 'vitest';
import { Job } from './jobs.ts';
import { Troubles } from './troubles.ts';

/** Something to be done when a test says so. */
function later(): { readonly done: Promise<void>; readonly end: () => void } {
  let end = (): void => undefined;
  const done = new Promise<void>((told) => (end = told));
  return { done, end };
}

test('a job is never under way twice, and what fails in it is told until it passes', async () => {
  const troubles = new Troubles(pino({ level: 'silent' }));
  const works = [later(), later()];
  let begun = 0;
  const job = new Job({ troubles }, 'timers', async () => {
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
