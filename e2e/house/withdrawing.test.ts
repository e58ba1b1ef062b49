import type { DoorDesign } from '@tolvek/core/door';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ilse: Caller;
let priya: Caller;
let oskar: Caller;
let edda: Caller;
let stranger: Caller;
const CONTACT = { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, ilse, priya] = [
    await desk.as('Maren Okafor'),
    await desk.as('Ilse Brandvold'),
    await desk.as('Priya Nakamura-Lind'),
  ];
  [oskar, edda, stranger] = [await desk.as('Oskar Veldhuis'), await desk.as('Edda Kilbride'), await desk.as()];
});
afterAll(() => desk.close());

const set = async (slug: string, change: Partial<DoorDesign>): Promise<void> => {
  const { version, door } = ok(await maren.call('doorDesign', { params: { slug } }));
  const body = { door: { ...door, ...change }, note: '' };
  ok(await maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body }));
};
const sentBy = async (who: Caller, answers: object = VISIT): Promise<string> =>
  ok(await who.submit('come-on-site', answers)).number;
const withdraw = (who: Caller, number: string, version = 1, reason = ''): Promise<Answer> =>
  who.call('withdrawMine', { params: { number }, headers: onVersion(version), body: { reason } });
const stages = (): readonly string[] => desk.register('site-access').stages.map(({ key }) => key);
const mine = async (who: Caller, number: string): Promise<Answer['body']> =>
  ok(await who.call('myRequest', { params: { number } }));

describe('withdrawing a request of one’s own', () => {
  it('is possible where its door says so, and goes to a stage that its register has from then on', async () => {
    const before = await sentBy(priya);
    expect((await mine(priya, before)).mayWithdraw).toBe(false);
    const refused = await withdraw(priya, before);
    expect([refused.status, refused.body.title]).toEqual([409, 'This request cannot be withdrawn any more.']);
    const had = stages();
    await set('come-on-site', { withdraws: 'worked-on' });
    expect(stages()).toEqual([...had, 'withdrawn']);
    // A second door, and a second time, find it there.
    await set('visit', { withdraws: 'finished' });
    await set('visit', { withdraws: 'finished', name: 'Outside' });
    expect(stages()).toEqual([...had, 'withdrawn']);
    expect((await mine(priya, before)).mayWithdraw).toBe(true);
    // Nobody else’s, not even of who works on it; and on the version that was read.
    for (const who of [oskar, ilse, maren]) expect((await withdraw(who, before)).status).toBe(404);
    expect((await withdraw(priya, before, 9)).status).toBe(412);
    expect(ok(await withdraw(priya, before, 1, ' We come in spring. ')).version).toBe(2);
    const page = await mine(priya, before);
    expect([page.stage, page.finished, page.mayWithdraw]).toEqual(['Withdrawn', true, false]);
    expect((await withdraw(priya, before, 2)).status).toBe(409);
    const sheet = await ilse.sheet(before);
    expect(sheet.stage.label).toBe('Withdrawn');
    expect(sheet.history.at(-1)).toMatchObject({
      what: 'Withdrawn by the requester (it was: Arrived)',
      comment: { text: 'We come in spring.' },
    });
    // Only a coordinator brings it back.
    expect(sheet.moves).toEqual([]);
    expect((await maren.sheet(before)).frees.map(({ key }: { key: string }) => key)).toContain('in_hand');
  });

  it('tells whoever works on it, and nobody else', async () => {
    const number = await sentBy(priya);
    const { version, assignable } = await ilse.sheet(number);
    const me = assignable.find(({ name }: { name: string }) => name === 'Ilse Brandvold').id;
    const params = { number };
    ok(await ilse.call('assign', { params, headers: onVersion(version), body: { person: me } }));
    const had = (await desk.letters()).length;
    ok(await withdraw(priya, number, version + 1, 'No boat.'));
    const letters = (await desk.letters()).slice(had);
    expect(letters.map(({ to }) => to.includes('ilse.brandvold'))).toEqual([true]);
    expect(letters[0]?.text).toContain('Withdrawn by the requester');
  });

  it('ends when somebody works on it, or when it is finished, as the door says', async () => {
    const number = await sentBy(priya);
    const { version } = await ilse.sheet(number);
    const params = { number };
    ok(await ilse.call('moveStage', { params, headers: onVersion(version), body: { stage: 'in_hand' } }));
    expect((await withdraw(priya, number, version + 1)).status).toBe(409);
    await set('come-on-site', { withdraws: 'finished' });
    ok(await withdraw(priya, number, version + 1));
    const done = await sentBy(priya);
    const at = (await ilse.sheet(done)).version;
    ok(await ilse.call('moveStage', { params: { number: done }, headers: onVersion(at), body: { stage: 'in_hand' } }));
    ok(await ilse.call('moveStage', { params: { number: done }, headers: onVersion(at + 1), body: { stage: 'done' } }));
    expect((await withdraw(priya, done, at + 2)).status).toBe(409);
  });

  it('withdraws a decision that waits: nobody is asked any more', async () => {
    const number = await sentBy(priya, WATER);
    const seen = await edda.seen(number);
    expect((await edda.sheet(number)).approval?.state).toBe('waiting');
    ok(await withdraw(priya, number));
    expect((await maren.sheet(number)).approval?.state).toBe('withdrawn');
    const decided = await edda.call('decide', {
      ...{ params: { number }, headers: freshly(), body: { verdict: 'approve', comment: '', seen } },
    });
    expect([404, 409]).toContain(decided.status);
  });

  it('is done by a link from outside, and gives its place back', async () => {
    await set('visit', { withdraws: 'finished', limits: [{ id: 'one', most: 1, of: 'each', days: null }] });
    const sent = async (): Promise<Answer> => {
      ok(await stranger.submit('visit', VISIT, { contact: CONTACT }));
      return stranger.call('confirm', { params: { token: await desk.tokenFor(CONTACT.email, 'confirm') } });
    };
    const { follow } = ok(await sent());
    expect((await sent()).status).toBe(409);
    const params = { token: follow };
    expect(ok(await stranger.call('follow', { params })).mayWithdraw).toBe(true);
    const body = { reason: '' };
    ok(await stranger.call('withdrawFollowed', { params, headers: onVersion(1), body }));
    expect(ok(await stranger.call('follow', { params }))).toMatchObject({ stage: 'Withdrawn', mayWithdraw: false });
    ok(await sent());
    const unknown = { params: { token: 'nothing' }, headers: onVersion(1), body };
    expect((await stranger.call('withdrawFollowed', unknown)).status).toBe(404);
    await set('visit', { limits: [] });
  });
});

describe('changing answers', () => {
  it('ends when the door says so, whatever the plan lets whoever asked', async () => {
    const { access } = desk.register('site-access');
    const corrects = {
      ...{ id: 'corrects', name: 'Whoever asks corrects', fields: ['reason'], level: 'write' as const },
      audience: { in: { anyOf: [] }, outOf: [], requester: 'in' as const },
    };
    desk.protect('site-access', { ...access, rules: [...access.rules, corrects] });
    const number = await sentBy(priya);
    const changed = async (version: number, reason: string): Promise<number> =>
      (
        await priya.call('changeMine', {
          ...{ params: { number }, headers: onVersion(version), body: { changes: { reason } } },
        })
      ).status;
    const open = async (): Promise<readonly string[]> =>
      (await mine(priya, number)).values.fields.flatMap((field: { key: string; writable: boolean }) =>
        field.writable ? [field.key] : [],
      );
    expect([await open(), await changed(1, 'Another reason')]).toEqual([['reason'], 200]);
    await set('come-on-site', { changes: 'worked-on' });
    expect([await open(), await changed(2, 'A third reason')]).toEqual([['reason'], 200]);
    ok(await ilse.call('moveStage', { params: { number }, headers: onVersion(3), body: { stage: 'in_hand' } }));
    expect([await open(), await changed(4, 'Too late')]).toEqual([[], 422]);
    // Who works on it goes on as ever.
    const body = { changes: { reason: 'As we heard' } };
    ok(await ilse.call('changeFields', { params: { number }, headers: onVersion(4), body }));
    await set('come-on-site', { changes: 'finished' });
    expect(await open()).toEqual(['reason']);
    await set('come-on-site', { changes: 'never' });
    expect(await open()).toEqual([]);
    await set('come-on-site', { changes: undefined });
    expect(await open()).toEqual(['reason']);
  });
});
