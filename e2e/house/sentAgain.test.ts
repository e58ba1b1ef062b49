import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, Desk, VISIT } from './desk.ts';

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.status, answer.body]).toEqual([200, answer.body]);
  return answer.body;
};

/** What was sent from outside waits for one step; whoever sent it sees that, corrects the address and gets another email. */
describe('a request that waits to be confirmed', () => {
  let desk: Desk;
  beforeAll(async () => {
    desk = await Desk.open();
  });
  afterAll(() => desk.running.stop());

  const sentBy = async (email: string) => {
    const stranger = await desk.as('');
    const sent = ok(
      await stranger.submit('visit', { ...VISIT, visitor: email }, { contact: { name: 'Ida Moss', email } }),
    );
    return { stranger, token: sent.sent as string };
  };

  it('is shown to whoever sent it, with its address, until it has arrived', async () => {
    const { stranger, token } = await sentBy('ida.moss@merrow.example');
    const state = async () => ok(await stranger.call('sentState', { params: { token } }));
    expect(await state()).toMatchObject({ state: 'to-confirm', slug: 'visit', email: 'ida.moss@merrow.example' });
    const link = await desk.tokenFor('ida.moss@merrow.example', 'confirm');
    const { number, due } = ok(await stranger.call('confirm', { params: { token: link } }));
    expect(await state()).toMatchObject({ state: 'arrived', number, due });
    const again = await stranger.call('sendAgain', { params: { token }, body: { email: 'ida.moss@merrow.example' } });
    expect(again.status).toBeGreaterThanOrEqual(400);
  });

  it('goes to a corrected address: only the last email confirms, and the old one tells nothing', async () => {
    const { stranger, token } = await sentBy('wrong.address@merrow.example');
    const old = await desk.tokenFor('wrong.address@merrow.example', 'confirm');
    ok(await stranger.call('sendAgain', { params: { token }, body: { email: 'Right.Address@merrow.example' } }));
    const late = await stranger.call('confirm', { params: { token: old } });
    expect(late.status).toBeGreaterThanOrEqual(400);
    expect((await stranger.call('confirmation', { params: { token: old } })).status).toBeGreaterThanOrEqual(400);
    const link = await desk.tokenFor('right.address@merrow.example', 'confirm');
    expect(ok(await stranger.call('confirmation', { params: { token: link } })).email).toBe(
      'right.address@merrow.example',
    );
    expect(ok(await stranger.call('confirm', { params: { token: link } })).number).toMatch(/^AC-\d+$/);
  });

  it('is sent once more to the same address, and keeps what was typed where the new one is none', async () => {
    const { stranger, token } = await sentBy('same.address@merrow.example');
    ok(await stranger.call('sendAgain', { params: { token }, body: { email: 'same.address@merrow.example' } }));
    const wrong = await stranger.call('sendAgain', { params: { token }, body: { email: 'no address' } });
    expect([wrong.status, wrong.body.problems[0]?.field]).toEqual([422, expect.stringContaining('email')]);
    const link = await desk.tokenFor('same.address@merrow.example', 'confirm');
    expect(ok(await stranger.call('confirm', { params: { token: link } })).number).toMatch(/^AC-\d+$/);
  });
});
