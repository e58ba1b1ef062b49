import { requests, seats } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ilse: Caller;
let priya: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
  ilse = await desk.as('Ilse Brandvold');
  priya = await desk.as('Priya Nakamura-Lind');
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const onVersion = async (who: Caller, number: string) => ({ 'If-Match': `"${(await who.sheet(number)).version}"` });
const free = async (who: Caller, number: string, stage: string, reason = 'Nobody is here to decide.') =>
  who.call('freeRequest', {
    params: { number },
    headers: await onVersion(maren, number),
    body: { stage, reason },
  });
const lettersAbout = async (number: string) =>
  (await desk.letters()).filter((letter) => `${letter.subject} ${letter.text}`.includes(number));

describe('a request that is stuck', () => {
  it('waits for a decision nobody makes: its deciders are reminded, and a coordinator frees it with a reason', async () => {
    const { number } = ok(await priya.submit('come-on-site', WATER));
    const sheet = await maren.sheet(number);
    expect([sheet.stage.role, sheet.moves]).toEqual(['deciding', []]);
    const asked = async (): Promise<number> =>
      (await lettersAbout(number)).filter((letter) => letter.text.includes('/decide/')).length;
    const before = await asked();
    ok(await maren.call('advanceClock', { body: { minutes: 3 * 24 * 60 } }));
    const after = await asked();
    expect([before > 0, after > before]).toEqual([true, true]);

    const refused = await free(ilse, number, 'arrived');
    expect([refused.status, refused.body.detail]).toEqual([
      403,
      'Nothing was changed. These people can give it to you: Ada Quillfeather.',
    ]);
    expect((await free(maren, number, 'deciding')).status).toBe(422);
    expect((await free(maren, number, 'arrived', ' ')).status).toBe(400);
    ok(await free(maren, number, 'arrived'));
    const freed = await maren.sheet(number);
    expect([freed.stage.key, freed.approval.state]).toEqual(['arrived', 'withdrawn']);
    expect(freed.history.at(-1)).toMatchObject({
      who: 'Maren Okafor',
      what: 'A coordinator moved the request past the decision: To be decided → Arrived',
      comment: { text: 'Nobody is here to decide.', visibility: 'internal' },
    });
    // The requester reads where it is, and not why.
    expect((await priya.call('myRequest', { params: { number } })).text).not.toContain('Nobody is here');
    const held = desk.running.house.db
      .select({ state: seats.state })
      .from(seats)
      .innerJoin(requests, eq(requests.id, seats.requestId))
      .where(eq(requests.number, number));
    expect(held.all()).toEqual([{ state: 'closed' }]);
  });

  it('was refused: a coordinator takes it up again, and its deadline runs', async () => {
    const { number } = ok(await priya.submit('come-on-site', { ...WATER, visitor: 'Another' }));
    const decider = await desk.as('Tomas Achterberg');
    ok(
      await decider.call('decide', {
        params: { number },
        headers: { 'Idempotency-Key': crypto.randomUUID() },
        body: { verdict: 'refuse', comment: 'Not in this weather.', seen: await decider.seen(number) },
      }),
    );
    expect((await maren.sheet(number)).deadlines[0].fuse.state).toBe('done');
    ok(await free(maren, number, 'in_hand', 'The weather has turned.'));
    const sheet = await maren.sheet(number);
    expect([sheet.stage.key, sheet.approval.state, sheet.deadlines[0].fuse.state === 'done']).toEqual([
      'in_hand',
      'refused',
      false,
    ]);
  });

  it('went to the wrong place: it is handed over, its handler lets go, and the new team hears of it', async () => {
    const { number } = ok(await priya.submit('come-on-site', VISIT));
    const sheet = await maren.sheet(number);
    const [person] = sheet.assignable;
    ok(
      await maren.call('assign', {
        params: { number },
        headers: await onVersion(maren, number),
        body: { person: person.id },
      }),
    );
    const other = sheet.teams.find((team: { here: boolean }) => !team.here);
    const body = { team: other.key, priority: 'high' };
    ok(await maren.call('reroute', { params: { number }, headers: await onVersion(maren, number), body }));
    const now = await maren.sheet(number);
    expect([now.team, now.priority, now.handler]).toEqual([other.name, 'high', null]);
    expect(now.history.slice(-3).map((entry: { what: string }) => entry.what)).toEqual([
      `Priority: ${sheet.priority} → high`,
      `Moved to the team ${other.name}`,
      'Given back to the team',
    ]);
    expect((await lettersAbout(number)).map((letter) => letter.to).length).toBeGreaterThan(2);
    const wrong = await maren.call('reroute', {
      params: { number },
      headers: await onVersion(maren, number),
      body: { team: 'nowhere', priority: 'low' },
    });
    expect([wrong.status, wrong.body.problems[0].field]).toEqual([422, 'team']);
    // What was said about the routing table stays true: it says what the table decided then.
    expect(now.routing.row).toBe(sheet.routing.row);
  });

  it('is a thing: it has no team and no priority to change', async () => {
    const [boat] = ok(await maren.call('ledger', { query: { tray: 'things' } })).rows;
    const sheet = await maren.sheet(boat.number);
    expect([sheet.teams, sheet.priority, sheet.deadlines, sheet.routing]).toEqual([[], null, [], null]);
    const refused = await maren.call('reroute', {
      params: { number: boat.number },
      headers: await onVersion(maren, boat.number),
      body: { team: 'boats', priority: 'high' },
    });
    expect(refused.status).toBe(409);
  });
});
