import { requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok } from './desk.ts';

let desk: Desk;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open(60);
  maren = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

const some = (): { number: string; requesterId: string | null }[] =>
  desk.running.house.db.select().from(requests).where(eq(requests.trial, false)).all();
const seen = (rows: readonly { number: string }[]) => rows.map(({ number }) => number);
let keys = 0;
const anew = () => ({ 'Idempotency-Key': `write-many-${(keys += 1)}` });
const many = async (rows: readonly string[], more: object, who = maren, headers = anew()): Promise<Answer['body']> =>
  ok(
    await who.call('writeMany', { headers, body: { requests: rows, text: 'The pier is shut.', apply: true, ...more } }),
  );
const said = async (number: string): Promise<readonly { text: string; visibility: string }[]> =>
  ok(await maren.call('sheet', { params: { number } })).history.flatMap(({ comment }: Answer['body']) => comment ?? []);

describe('several requests that are written about', () => {
  it('each have the words of their own, to whoever asked; what can’t be says why, and was counted before', async () => {
    const all = some();
    const asked = all.filter(({ requesterId }) => requesterId !== null).slice(0, 12);
    const rows = [...asked, ...all.filter(({ requesterId }) => requesterId === null).slice(0, 3)];
    const before = await Promise.all(rows.map(({ number }) => said(number)));
    const planned = await many(seen(rows), { visibility: 'requester', apply: false });
    expect(await Promise.all(rows.map(({ number }) => said(number)))).toEqual(before);
    const done = await many(seen(rows), { visibility: 'requester' });
    expect([planned.written, planned.refused]).toEqual([done.written, done.refused]);
    const refused = new Set(done.refused.map(({ number }: { number: string }) => number));
    expect(done.written).toBe(rows.length - refused.size);
    expect(done.written).toBeGreaterThan(5);
    for (const [at, { number, requesterId }] of rows.entries()) {
      const news = (await said(number)).length - (before[at]?.length ?? 0);
      expect([number, news]).toEqual([number, refused.has(number) ? 0 : 1]);
      if (requesterId === null) expect(refused.has(number)).toBe(true);
    }
    // Who asked gets an email with the words, and nobody reads of another.
    await desk.running.lettersSent();
    const letters = (await desk.letters()).filter(({ text }) => text.includes('The pier is shut.'));
    expect(letters.length).toBeGreaterThan(0);
    const numbers = rows.map(({ number }) => number);
    for (const { text } of letters) expect(numbers.filter((number) => text.includes(number)).length).toBeLessThan(2);
  });

  it('are not written about twice by the same press, nor by who may not, nor with nothing', async () => {
    const [one = ''] = seen(some().filter(({ requesterId }) => requesterId !== null));
    const before = (await said(one)).length;
    const press = anew();
    expect((await many([one, one], { visibility: 'internal' }, maren, press)).written).toBe(1);
    expect((await many([one], { visibility: 'internal' }, maren, press)).written).toBe(1);
    expect((await said(one)).length).toBe(before + 1);
    const other = await many([one], { visibility: 'internal', text: 'Otherwise.' }, maren, press);
    expect([other.written, other.refused.length, (await said(one)).length]).toEqual([0, 1, before + 1]);
    const priya = await desk.as('Priya Nakamura-Lind');
    const theirs = seen(some()).slice(0, 5);
    expect((await many(theirs, { visibility: 'internal' }, priya)).written).toBe(0);
    const empty = { requests: theirs, text: ' ', visibility: 'internal', apply: true };
    expect((await maren.call('writeMany', { headers: anew(), body: empty })).status).toBe(400);
  });
});
