import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk } from './desk.ts';

let desk: Desk;
let coordinator: Caller;
beforeAll(async () => {
  desk = await Desk.open(60);
  coordinator = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

const tryIt = async (condition: string, number: string | null = null) =>
  (await coordinator.call('tryCondition', { params: { key: 'site-access' }, body: { condition, number } })).body;

describe('trying a condition on past requests', () => {
  it('counts those it holds for, does not, and can’t be said of', async () => {
    const all = await tryIt('true');
    expect([all.refused, all.fails, all.unsaid]).toEqual([null, 0, 0]);
    const [dear, cheap] = [await tryIt('fee > 500'), await tryIt('not(fee > 500)')];
    expect(dear.holds).toBe(cheap.fails);
    expect(dear.fails).toBe(cheap.holds);
    expect(dear.holds + dear.fails + dear.unsaid).toBe(all.holds);
    // There are fewer requests than are tried, so counting them all in the database gives the same.
    expect([dear.ever, all.ever]).toEqual([
      { holds: dear.holds, of: all.holds },
      { holds: all.holds, of: all.holds },
    ]);
    expect((await tryIt('string length(visitor) > 3')).ever).toBe(null);
    expect(dear.holds).toBeGreaterThan(0);
    expect(dear.fails + dear.unsaid).toBeGreaterThan(0);
  });

  it('knows who asked, by which door, on the day they asked', async () => {
    const [outside, byDoor] = [await tryIt('requester.outside'), await tryIt('door = "outside"')];
    expect(outside.holds).toBeGreaterThan(0);
    expect([outside.holds, outside.ever.holds, byDoor.ever.holds]).toEqual([byDoor.holds, byDoor.holds, byDoor.holds]);
    expect((await tryIt('arrival >= today')).holds).toBe((await tryIt('arrival != null')).holds);
  });

  it('explains the request that is named', async () => {
    const { tried } = await tryIt('fee > 500 and works_on_water');
    const chosen = tried[3];
    const { explained } = await tryIt('fee > 500 and works_on_water', chosen.number);
    expect(explained.number).toBe(chosen.number);
    expect(explained.reason.result).toBe(chosen.result);
    expect(explained.reason.parts.map((part: { words: string }) => part.words.split(':')[0])).toEqual([
      'Fee is above 500 EUR',
      'Works on water is yes',
    ]);
  });

  it('says what is wrong with it, in the words of a finding', async () => {
    expect((await tryIt('fee > ')).refused).toBe('Something is missing at the end. Complete it.');
    expect((await tryIt('feee > 5')).refused).toContain('Did you mean “Fee”');
  });

  it('refuses a field the coordinator may not read as if it were not there, and counts nothing', async () => {
    for (const condition of ['medical_note != null', 'fee > 500 or medical_note = "x"']) {
      const answer = await tryIt(condition);
      expect(answer.refused).toContain('nothing called “medical_note”');
      expect([answer.holds, answer.fails, answer.unsaid, answer.ever, answer.tried, answer.explained]).toEqual([
        0,
        0,
        0,
        null,
        [],
        null,
      ]);
    }
  });

  it('is for coordinators', async () => {
    const handler = await desk.as('Bram Solheim');
    expect(
      (
        await handler.call('tryCondition', {
          params: { key: 'site-access' },
          body: { condition: 'true', number: null },
        })
      ).status,
    ).toBe(403);
  });
});
