import { requests } from '@tolvek/server/schema';
import { and, eq, ne } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, ok } from './desk.ts';

let desk: Desk;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open(60);
  maren = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

const open = (): readonly { number: string; version: number }[] =>
  desk.running.house.db
    .select({ number: requests.number, version: requests.version })
    .from(requests)
    .where(and(eq(requests.trial, false), ne(requests.phase, 'finished')))
    .all();
const many = async (some: readonly object[], stage: string | undefined, apply: boolean, who = maren) =>
  ok(await who.call('moveMany', { body: { requests: some, ...(stage ? { stage } : {}), apply } }));

describe('several requests', () => {
  it('are moved where each sheet would move them, as it was said before, and what can’t be says why', async () => {
    const some = open();
    const { stages } = await many(some, undefined, false);
    // What each sheet offers, read one by one.
    const sheets = new Map<string, { moves: { key: string }[]; may: { move: boolean } }>();
    for (const { number } of some) sheets.set(number, ok(await maren.call('sheet', { params: { number } })));
    const offered = [...sheets.values()].flatMap(({ moves }) => moves.map(({ key }) => key));
    const counts = (keys: readonly string[]) =>
      [...new Set(keys)].map((key) => [key, keys.filter((each) => each === key).length]);
    expect(stages.map(({ key, count }: { key: string; count: number }) => [key, count]).sort()).toEqual(
      counts(offered).sort(),
    );
    const wanted = [...sheets].flatMap(([number, { moves }]) =>
      moves.some(({ key }) => key === 'in_hand') ? [number] : [],
    );
    const told = await many(some, 'in_hand', false);
    expect([told.moved, told.refused.length]).toEqual([wanted.length, some.length - wanted.length]);
    expect(wanted.length).toBeGreaterThan(2);
    const done = await many(some, 'in_hand', true);
    expect([done.moved, done.refused.length]).toEqual([wanted.length, some.length - wanted.length]);
    const refusedOnes = new Set(done.refused.map(({ number }: { number: string }) => number));
    expect(refusedOnes.size).toBeGreaterThan(2);
    for (const { number } of some) {
      const { stage } = ok(await maren.call('sheet', { params: { number } }));
      expect([number, refusedOnes.has(number) || stage.key === 'in_hand']).toEqual([number, true]);
    }
  });

  it('are not moved by who may not, nor on a version that is over', async () => {
    const [one] = open();
    const priya = await desk.as('Priya Nakamura-Lind');
    expect((await many([one ?? {}], 'done', true, priya)).moved).toBe(0);
    const { moved, refused } = await many([{ ...one, version: 99 }], 'done', true);
    expect([moved, refused.length]).toEqual([0, 1]);
  });
});
