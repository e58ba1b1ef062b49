import { links } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, ok, VISIT } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ilse: Caller;
let priya: Caller;
let stranger: Caller;
let number = '';
let follow = '';
const WANDA = { name: 'Wanda Ferris', email: 'wanda.ferris@merrow.example' };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, ilse] = [await desk.as('Maren Okafor'), await desk.as('Ilse Brandvold')];
  [priya, stranger] = [await desk.as('Priya Nakamura-Lind'), await desk.as()];
  ok(await stranger.submit('visit', VISIT, { contact: WANDA }));
  const token = await desk.tokenFor(WANDA.email, 'confirm');
  ({ number, follow } = ok(await stranger.call('confirm', { params: { token } })));
  ok(await ilse.call('comment', { params: { number }, body: { text: 'When do you come?', visibility: 'requester' } }));
});
afterAll(() => desk.close());

const listed = async (
  who: Caller,
): Promise<{ id: string; person: string; state: string; until: string; made: string }[]> =>
  (await who.sheet(number)).links;
const opens = async (token: string): Promise<number> => (await stranger.call('follow', { params: { token } })).status;
const newest = (): Promise<string> => desk.tokenFor(WANDA.email, 'follow');

describe('the links by which somebody from outside follows a request', () => {
  it('are listed on its sheet for whoever may change it, with until when; the email says that as well', async () => {
    const token = await newest();
    expect([await opens(follow), await opens(token)]).toEqual([200, 200]);
    const found = await listed(ilse);
    expect(found.length).toBeGreaterThanOrEqual(2);
    expect(new Set(found.map(({ person, state }) => `${person} ${state}`))).toEqual(new Set(['Wanda Ferris works']));
    expect(found.every(({ made, until }) => made < until)).toBe(true);
    const letter = (await desk.letters()).filter(({ text }) => text.includes(`/follow/${token}`)).at(-1);
    const last = new Date(found[0]?.until ?? '').toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });
    expect(letter?.text).toContain(`until ${last}`);
    // Nobody else hears of them.
    expect((await priya.call('sheet', { params: { number } })).status).toBe(404);
  });

  it('end one by one, or all at once; then they open nothing, and say what to do', async () => {
    const { db } = desk.running.house;
    const [first] = await listed(ilse);
    const kept = db
      .select()
      .from(links)
      .where(eq(links.id, first?.id ?? ''))
      .get();
    expect(kept?.usedAt).toBeNull();
    for (const other of [priya, await desk.as('Emeric Vantongeren')])
      expect((await other.call('endLinks', { params: { number }, body: { only: null } })).status).toBe(404);
    expect(ok(await ilse.call('endLinks', { params: { number }, body: { only: [first?.id] } }))).toEqual({ ended: 1 });
    expect((await listed(ilse)).filter(({ state }) => state === 'ended').map(({ id }) => id)).toEqual([first?.id]);
    ok(await ilse.call('endLinks', { params: { number }, body: { only: null } }));
    const gone = await stranger.call('follow', { params: { token: follow } });
    expect([gone.status, gone.body.title]).toEqual([410, 'This link does not work any more.']);
    expect((await listed(ilse)).some(({ state }) => state === 'works')).toBe(false);
    const told = (await ilse.sheet(number)).history.map(({ what }: { what: string }) => what);
    expect(told).toContain('Ended the links of Wanda Ferris to this request');
    expect(ok(await ilse.call('endLinks', { params: { number }, body: { only: null } }))).toEqual({ ended: 0 });
  });

  it('are sent anew: the one before opens nothing, the new one does', async () => {
    ok(await ilse.call('sendLink', { params: { number } }));
    const token = await newest();
    expect(await opens(token)).toBe(200);
    ok(await ilse.call('sendLink', { params: { number } }));
    const again = await newest();
    expect([again === token, await opens(token), await opens(again)]).toEqual([false, 410, 200]);
    const subjects = (await desk.letters()).filter(({ to }) => to.includes(WANDA.email)).map(({ subject }) => subject);
    expect(subjects.filter((subject) => subject.startsWith('Your new link:'))).toHaveLength(2);
    // Staff sign in.
    const { number: own } = ok(await priya.submit('come-on-site', VISIT));
    expect((await maren.call('sendLink', { params: { number: own } })).status).toBe(409);
  });

  it('are ended by whose request it is: all of them, or all but the one they came by', async () => {
    const before = await newest();
    ok(await ilse.call('comment', { params: { number }, body: { text: 'And how many?', visibility: 'requester' } }));
    const here = await newest();
    const page = ok(await stranger.call('follow', { params: { token: here } }));
    expect(page.links.working).toBe(2);
    expect(page.links.each.map((link: { here: boolean }) => link.here).sort()).toEqual([false, true]);
    // One of them by its id; one that is not theirs ends nothing.
    const only = page.links.each.flatMap((link: { id: string; here: boolean }) => (link.here ? [] : [link.id]));
    const nothing = { params: { token: here }, body: { only: ['somebody else’s'] } };
    expect(ok(await stranger.call('endOtherLinks', nothing))).toEqual({ ended: 0 });
    expect(ok(await stranger.call('endOtherLinks', { params: { token: here }, body: { only } }))).toEqual({ ended: 1 });
    expect(ok(await stranger.call('endOtherLinks', { params: { token: here } }))).toEqual({ ended: 0 });
    expect([await opens(before), await opens(here)]).toEqual([410, 200]);
    const wanda = await desk.contact(WANDA.email);
    const other: Answer = await priya.call('endMyLinks', { params: { number } });
    expect(other.status).toBe(404);
    expect(ok(await wanda.call('endMyLinks', { params: { number } }))).toEqual({ ended: 1 });
    expect(await opens(here)).toBe(410);
    // Signed in, they read it all the same.
    expect(ok(await wanda.call('myRequest', { params: { number } })).links).toEqual({
      working: 0,
      until: null,
      needsCode: false,
      each: [],
      mayRenew: true,
    });
  });

  it('are renewed by whose request it is, by the page they came to or signed in; a few times in an hour', async () => {
    const wanda = await desk.contact(WANDA.email);
    ok(await wanda.call('renewMyLink', { params: { number } }));
    const first = await newest();
    expect(await opens(first)).toBe(200);
    // By the link itself: it goes to the address of whose request it is, and the one that was shown opens nothing more.
    ok(await stranger.call('renewLink', { params: { token: first } }));
    const second = await newest();
    expect([second === first, await opens(first), await opens(second)]).toEqual([false, 410, 200]);
    expect((await stranger.call('renewLink', { params: { token: first } })).status).toBe(410);
    expect((await priya.call('renewMyLink', { params: { number } })).status).toBe(404);
    const { number: own } = ok(await priya.submit('come-on-site', VISIT));
    expect((await priya.call('renewMyLink', { params: { number: own } })).status).toBe(409);
    let last = second;
    let refused = 0;
    for (let n = 0; n < 6; n += 1) {
      const answer = await wanda.call('renewMyLink', { params: { number } });
      if (answer.status === 429) refused += 1;
      else last = await newest();
    }
    expect([refused > 0, await opens(last)]).toEqual([true, 200]);
  });
});
