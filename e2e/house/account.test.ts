import { people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, Desk } from './desk.ts';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const idOf = (name: string): string =>
  desk.running.house.db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? '';
const PASSWORD = 'gulls over grey water';

describe('a forgotten password', () => {
  it('is told to nobody: every address is answered the same, and only its owner is written to', async () => {
    const stranger = await desk.as();
    const answers = await Promise.all(
      [
        'hanne.istvan@skerrow.example',
        'wim.haldane@haldane.example',
        'aoife.brannock@skerrow.example',
        'nobody@nowhere.example',
        '',
      ].map((email) => stranger.call('forgotPassword', { body: { email } })),
    );
    expect(new Set(answers.map(({ status, text }) => `${status} ${text}`)).size).toBe(1);
    const resets = (await desk.letters()).filter(({ subject }) => subject.startsWith('Choose another password'));
    expect(resets.map(({ to }) => to)).toEqual([expect.stringContaining('hanne.istvan@skerrow.example')]);
  });

  it('is replaced by the link in that email, once, within an hour; three emails an hour at most', async () => {
    const stranger = await desk.as();
    for (let n = 0; n < 5; n += 1)
      ok(await stranger.call('forgotPassword', { body: { email: 'Hanne.Istvan@skerrow.example' } }));
    expect((await desk.letters()).filter(({ subject }) => subject.startsWith('Choose another password'))).toHaveLength(
      3,
    );
    const token = await desk.tokenFor('hanne.istvan', 'welcome');
    expect(ok(await stranger.call('invitation', { params: { token } })).purpose).toBe('reset');
    const accept = (password: string) => stranger.call('acceptInvitation', { params: { token }, body: { password } });
    const before = await desk.as('Hanne Istvan');
    ok(await accept(PASSWORD));
    expect(ok(await before.call('me')).person).toBeNull();
    expect((await accept('another one of them')).status).toBe(410);
    // The links of the other two emails ended with it.
    const others = (await desk.letters()).flatMap(({ text }) => /\/welcome\/([\w-]+)/.exec(text)?.[1] ?? []);
    for (const other of others)
      expect((await stranger.call('invitation', { params: { token: other } })).status).toBe(410);
    ok(await stranger.call('forgotPassword', { body: { email: 'ruadhan.pell@skerrow.example' } }));
    const late = await desk.tokenFor('ruadhan.pell', 'welcome');
    ok(await (await desk.as('Ada Quillfeather')).call('advanceClock', { body: { minutes: 61 } }));
    expect((await stranger.call('invitation', { params: { token: late } })).status).toBe(410);
  });
});

describe('an account', () => {
  it('changes its password by the one it has; all other sessions end, and the one that changed it goes on', async () => {
    const [here, there] = [await desk.anew('Priya Nakamura-Lind'), await desk.anew('Priya Nakamura-Lind')];
    const change = (current: string, next: string) => here.call('changePassword', { body: { current, next } });
    expect((await change('wrong', PASSWORD)).body.problems[0].field).toBe('current');
    expect((await change('tolvek-demo', 'priya')).body.problems[0].field).toBe('next');
    ok(await change('tolvek-demo', PASSWORD));
    expect([ok(await here.call('me')).person?.name, ok(await there.call('me')).person]).toEqual([
      'Priya Nakamura-Lind',
      null,
    ]);
    expect((await desk.by('priya.nakamura.lind@skerrow.example', 'tolvek-demo')) === null).toBe(true);
    expect((await desk.by('priya.nakamura.lind@skerrow.example', PASSWORD)) === null).toBe(false);
  });

  it('lists where one is signed in, and ends what is one’s own, and nothing else', async () => {
    const [bram, also, ilse] = [
      await desk.anew('Bram Solheim'),
      await desk.anew('Bram Solheim'),
      await desk.as('Ilse Brandvold'),
    ];
    const { sessions } = ok(await bram.call('account'));
    expect(sessions.map(({ here }: { here: boolean }) => here).sort()).toEqual([false, true]);
    const [other, own] = [false, true].map(
      (here) => sessions.find((each: { here: boolean }) => each.here === here).id as string,
    );
    expect((await ilse.call('endSession', { params: { id: other ?? '' } })).status).toBe(404);
    expect((await bram.call('endSession', { params: { id: own ?? '' } })).status).toBe(409);
    ok(await bram.call('endSession', { params: { id: other ?? '' } }));
    expect([ok(await bram.call('me')).person?.name, ok(await also.call('me')).person]).toEqual(['Bram Solheim', null]);
  });

  it('is signed out of one session by who manages people, but for who may do more; the history says of which', async () => {
    const maren = await desk.as('Maren Okafor');
    const [one, two] = [await desk.anew('Signe Halvard'), await desk.anew('Signe Halvard')];
    const at = (name: string) => ({ params: { id: idOf(name) } });
    const own = (caller: typeof one) => caller.call('account').then(({ body }) => body.sessions);
    const found = (all: { here: boolean; id: string }[]): string => all.find(({ here }) => here)?.id ?? '';
    const session = found(await own(one));
    const { sessions, version } = ok(await maren.call('person', at('Signe Halvard')));
    expect(sessions.map(({ id }: { id: string }) => id).sort()).toEqual(
      (await own(two)).map(({ id }: { id: string }) => id).sort(),
    );
    expect(sessions.some(({ here }: { here: boolean }) => here)).toBe(false);
    const end = (name: string, id: string) =>
      maren.call('endTheirSession', { params: { id: idOf(name), session: id } });
    expect((await end('Edda Kilbride', session)).status).toBe(404);
    ok(await end('Signe Halvard', session));
    expect((await end('Signe Halvard', session)).status).toBe(404);
    expect([ok(await one.call('me')).person, ok(await two.call('me')).person?.name]).toEqual([null, 'Signe Halvard']);
    const after = ok(await maren.call('person', at('Signe Halvard')));
    expect([after.version, after.history[0].words, after.history[0].undoable]).toEqual([
      version,
      'Signed out of one session',
      false,
    ]);
    // Their own is ended as on their own account: not the one that asks.
    expect((await end('Maren Okafor', found(await own(maren)))).status).toBe(409);
    const ada = await desk.as('Ada Quillfeather');
    expect((await end('Ada Quillfeather', found(await own(ada)))).status).toBe(403);
  });

  it('is signed out everywhere by who manages people, but for who may do more than they', async () => {
    const [maren, edda] = [await desk.as('Maren Okafor'), await desk.anew('Edda Kilbride')];
    const { ended } = ok(await maren.call('signOutPerson', { params: { id: idOf('Edda Kilbride') } }));
    expect([ended, ok(await edda.call('me')).person]).toEqual([1, null]);
    await desk.as('Ada Quillfeather');
    expect((await maren.call('signOutPerson', { params: { id: idOf('Ada Quillfeather') } })).status).toBe(403);
  });
});

describe('signing in', () => {
  it('begins a session of its own, whatever session was there before: planted, of somebody else, or made up', async () => {
    const bram = await desk.anew('Bram Solheim');
    const enter = async (cookie: string) => {
      const answer = await fetch(`${desk.running.url}/api/auth/sign-in/email`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify({ email: 'signe.halvard@skerrow.example', password: 'tolvek-demo' }),
      });
      return (
        answer.headers
          .getSetCookie()
          .find((each) => each.startsWith('tolvek.session_token='))
          ?.split(';')[0] ?? ''
      );
    };
    const who = async (cookie: string) =>
      (await (await fetch(`${desk.running.url}/api/me`, { headers: { cookie } })).json()).person?.name ?? null;
    const planted = [
      bram.cookie,
      'tolvek.session_token=planted',
      `tolvek.session_token=${'x'.repeat(32)}.${'y'.repeat(44)}`,
    ];
    const given: string[] = [];
    for (const cookie of planted) {
      const mine = await enter(cookie);
      expect([cookie.includes(mine), await who(mine)]).toEqual([false, 'Signe Halvard']);
      given.push(mine);
    }
    expect([new Set(given).size, await who(bram.cookie), await who(planted[1] ?? '')]).toEqual([
      3,
      'Bram Solheim',
      null,
    ]);
  });
});
