import { Buffer } from 'node:buffer';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok } from './desk.ts';
import { DOT } from './groundCalls.ts';

let desk: Desk;
let ada: Caller;
let ilse: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  ada = await desk.as('Ada Quillfeather');
  ilse = await desk.as('Ilse Brandvold');
});
afterAll(() => desk.close());

const read = (path: string, cookie = '') => fetch(`${desk.running.url}${path}`, { headers: { cookie } });
const asPicture = (content: string | Buffer): string => Buffer.from(content).toString('base64');

describe('a portrait', () => {
  it('is set by its owner and by who looks after people, read by staff, and kept by its version', async () => {
    const id = desk.idOf('Ilse Brandvold');
    const path = `/api/people/${id}/portrait`;
    expect((await read(path, ilse.cookie)).status).toBe(404);
    const { version } = ok(await ilse.call('setOwnPortrait', { body: { picture: DOT } }));
    const answer = await read(`${path}?v=${version}`, ilse.cookie);
    expect([answer.status, answer.headers.get('content-type'), answer.headers.get('cache-control')]).toEqual([
      ...[200, 'image/png', 'private, max-age=31536000, immutable'],
    ]);
    expect(Buffer.from(await answer.arrayBuffer()).toString('base64')).toBe(DOT);
    expect((await read(`${path}?v=other`, ilse.cookie)).headers.get('cache-control')).toBe('no-store');
    expect((await read(path)).status).toBe(401);
    expect((await ilse.call('setPortrait', { params: { id }, body: { picture: null } })).status).toBe(403);
    const { portrait, history } = ok(await ada.call('person', { params: { id } }));
    expect([portrait, history[0].words]).toEqual([version, 'Portrait set']);
    ok(await ada.call('setPortrait', { params: { id }, body: { picture: null } }));
    expect([ok(await ilse.call('account')).portrait, (await read(path, ilse.cookie)).status]).toEqual([null, 404]);
  });

  it('is a picture of a kind that runs nothing, and a small one', async () => {
    const page = '<html><script>alert(1)</script></html>';
    const drawing = '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>';
    const large = Buffer.concat([Buffer.from(DOT, 'base64'), Buffer.alloc(200 * 1024)]);
    for (const picture of [asPicture(page), asPicture(drawing), asPicture('%PDF-1.7'), asPicture(large), ''])
      expect((await ilse.call('setOwnPortrait', { body: { picture } })).status).toBe(422);
    expect((await ilse.call('setOwnPortrait', { body: { picture: 'not base64!' } })).status).toBe(400);
  });

  it('stays with the one record that two become, and goes with who is taken back', async () => {
    const add = async (name: string) =>
      ok(
        await ada.call('addPerson', {
          ...{ headers: freshly(), body: { kind: 'contact', name, email: `${name.toLowerCase()}@pictures.example` } },
        }),
      ).id as string;
    const [stays, goes] = [await add('Una'), await add('Unna')];
    const { version } = ok(await ada.call('setPortrait', { params: { id: goes }, body: { picture: DOT } }));
    ok(await ada.call('mergePeople', { params: { id: stays }, body: { other: goes } }));
    expect(ok(await ada.call('person', { params: { id: stays } })).portrait).toBe(version);
    expect((await ada.call('setPortrait', { params: { id: goes }, body: { picture: DOT } })).status).toBe(404);
  });
});

it('the logo of the desk is seen by everybody, and set by who sets up the groundwork', async () => {
  const outside = await desk.as();
  expect(ok(await outside.call('me')).desk.logo).toBeNull();
  expect((await ilse.call('setLogo', { body: { picture: DOT } })).status).toBe(403);
  const { version } = ok(await ada.call('setLogo', { body: { picture: DOT } }));
  expect(ok(await outside.call('me')).desk.logo).toBe(version);
  expect((await read(`/api/desk/logo?v=${version}`)).status).toBe(200);
  ok(await ada.call('setLogo', { body: { picture: null } }));
  expect((await read('/api/desk/logo')).status).toBe(404);
});
