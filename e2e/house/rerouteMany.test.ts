import type { FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, onVersion, VISIT } from './desk.ts';

// Requests are given to another team or handler, or another priority, several at a time: each on its version, each by itself.
let desk: Desk;
let maren: Caller;
let priya: Caller;
let ilse: Caller;
const of = { params: { key: 'site-access' } };
let release = 0;

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, ilse] = [
    await desk.as('Maren Okafor'),
    await desk.as('Priya Nakamura-Lind'),
    await desk.as('Ilse Brandvold'),
  ];
  const { draft, version } = ok(await maren.call('form', of)) as { draft: FormDesign; version: number };
  const otherwise = { ...draft.routing.otherwise, team: 'estates', path: null };
  const byTurn = { ...otherwise, handler: { ways: [{ by: 'turn' as const }] } };
  const routing = {
    columns: [{ id: 'why', label: 'Why', input: 'reason' }],
    rows: [{ id: 'row-turn', note: '', cells: { why: '"turn"' }, outcome: byTurn }],
    otherwise,
  };
  const saved = ok(
    await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: { ...draft, routing } } }),
  );
  release = ok(
    await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  ).number;
});
afterAll(() => desk.close());

let visitors = 0;
async function sent(reason = 'x'): Promise<string> {
  visitors += 1;
  const answers = { ...VISIT, reason, visitor: `Visitor ${'v'.repeat(visitors)}` };
  return ok(await priya.submit('come-on-site', answers, { release })).number;
}
const sheetOf = (number: string): Promise<Answer['body']> => maren.sheet(number);
const rows = async (numbers: readonly string[]): Promise<readonly { number: string; version: number }[]> =>
  Promise.all(numbers.map(async (number) => ({ number, version: (await sheetOf(number)).version })));
const give = async (numbers: readonly string[], wanted: object, apply = true, who = maren): Promise<Answer> =>
  who.call('rerouteMany', { body: { requests: await rows(numbers), reason: 'As agreed', ...wanted, apply } });
const says = async (number: string): Promise<readonly string[]> =>
  (await sheetOf(number)).history.map(({ what }: { what: string }) => what);

describe('several requests', () => {
  it('go to another team, as it was said before: who is not in it lets go, and the reason stands in each', async () => {
    const numbers = [await sent('turn'), await sent('turn'), await sent()];
    const wanted = { team: 'boats', priority: 'high' };
    const before = ok(await give(numbers, wanted, false));
    expect([before.applied, before.changed, before.changes]).toEqual([
      false,
      3,
      { team: 3, priority: 3, handler: 0, letsGo: 2 },
    ]);
    expect((await sheetOf(numbers[0] ?? '')).team).toBe('Estates');
    expect(before.people.map(({ name }: { name: string }) => name)).toContain('Bram Solheim');
    const after = ok(await give(numbers, wanted));
    expect({ ...after, applied: false }).toEqual(before);
    for (const number of numbers) {
      const { team, priority, handler, history } = await sheetOf(number);
      expect([team, priority, handler]).toEqual(['Boats', 'high', null]);
      expect(history.some(({ comment }: { comment: { text: string } | null }) => comment?.text === 'As agreed')).toBe(
        true,
      );
    }
    // What is so already is nobody’s change.
    const again = ok(await give(numbers, wanted));
    expect([again.changed, again.changes.team]).toEqual([0, 0]);
  });

  it('get a handler, or the next by the rule of their row; who can’t be found says why, and stops no other', async () => {
    const numbers = [await sent('turn'), await sent('turn'), await sent()];
    const plain = numbers[2] ?? '';
    const one = ok(await give(numbers, { handler: { person: desk.idOf('Ilse Brandvold') } }));
    expect([one.refused, one.changed >= 2]).toEqual([[], true]);
    for (const number of numbers) expect((await sheetOf(number)).handler.name).toBe('Ilse Brandvold');
    const { history } = await sheetOf(plain);
    expect(history.at(-1).comment.text).toBe('As agreed');
    const stranger = ok(await give(numbers, { handler: { person: desk.idOf('Bram Solheim') } }));
    expect([stranger.changed, stranger.refused.map(({ number }: { number: string }) => number)]).toEqual([0, numbers]);
    const byRule = ok(await give(numbers, { handler: { by: 'rule' } }));
    expect(byRule.refused).toEqual(
      [{ number: plain, why: { say: 'refusals:noHandlerRule.happened' } }].map(() =>
        expect.objectContaining({ number: plain }),
      ),
    );
    expect((await says(numbers[0] ?? '')).some((what) => what.includes('as it is their turn'))).toBe(true);
    const nobody = ok(await give(numbers, { handler: { person: null } }));
    expect(nobody.refused).toEqual([]);
    for (const number of numbers) expect((await sheetOf(number)).handler).toBe(null);
  });

  it('are not changed over what somebody else did, by who may not, or where they are not seen', async () => {
    const numbers = [await sent(), await sent()];
    const [first = '', second = ''] = numbers;
    const seen = await rows(numbers);
    ok(await maren.call('comment', { params: { number: first }, body: { text: 'Wait', visibility: 'internal' } }));
    ok(
      await maren.call('assign', {
        ...{ params: { number: first }, headers: onVersion((await sheetOf(first)).version) },
        body: { person: desk.idOf('Ilse Brandvold') },
      }),
    );
    const body = { requests: seen, priority: 'low', reason: '', apply: true };
    const told = ok(await maren.call('rerouteMany', { body }));
    expect([told.changed, told.refused.map(({ number }: { number: string }) => number)]).toEqual([1, [first]]);
    expect([(await sheetOf(first)).priority, (await sheetOf(second)).priority]).toEqual(['normal', 'low']);
    const theirs = await give(numbers, { priority: 'high' }, true, priya);
    expect([theirs.status, theirs.body.changed ?? 0]).toEqual([200, 0]);
    expect((await give(numbers, { team: 'nowhere' })).status).toBe(422);
    expect((await give(numbers, { priority: 'high' }, true, await desk.as())).status).toBe(401);
    // Whoever works on them may give them on, as one by one.
    expect(ok(await give([second], { priority: 'high' }, true, ilse)).changed).toBe(1);
  });
});
