import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, ok, onVersion } from './desk.ts';

// A form within pages elsewhere: in those that its door names, and in no others.
let desk: Desk;
let maren: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

const settle = async (slug: string, embeds: readonly string[] | undefined) => {
  const { door, version } = ok(await maren.call('doorDesign', { params: { slug } }));
  const { embeds: _, ...rest } = door;
  const body = { door: embeds ? { ...rest, embeds } : rest, note: '' };
  return maren.call('changeDoor', { params: { slug }, headers: onVersion(version), body });
};
/** Which pages may show a page of ours in a frame, as its headers say. */
const framers = async (path: string): Promise<string> => {
  const { headers } = await fetch(`${desk.running.url}${path}`);
  const policy = headers.get('content-security-policy') ?? '';
  const old = headers.get('x-frame-options');
  return `${/frame-ancestors ([^;]*)/.exec(policy)?.[1]}${old ? `, ${old}` : ''}`;
};
const OURS = "'self', SAMEORIGIN";

describe('a form within pages elsewhere', () => {
  it('stands in those its door names, and nothing else of ours does', async () => {
    expect(await framers('/embed/school-visit')).toBe(OURS);
    ok(await settle('school-visit', ['https://orford.example', 'https://www.orford.example:8443']));
    expect(await framers('/embed/school-visit')).toBe("'self' https://orford.example https://www.orford.example:8443");
    // Of all else the policy is as it was: the page of the door itself, other doors, the API, addresses that look alike.
    for (const path of [
      ...['/', '/ask/school-visit', '/embed/visit', '/embed/vessel-time', '/embed/nothing', '/workshop', '/sign-in'],
      ...['/api/doors/school-visit', '/embed/school-visit/x', '/embed/', '/embed/school-visit%2f..', '/my/AC-00001'],
    ])
      expect([path, await framers(path)]).toEqual([path, OURS]);
    ok(await settle('school-visit', undefined));
    expect(await framers('/embed/school-visit')).toBe(OURS);
  });

  it('is named by origins, and is never one of the staff', async () => {
    for (const wrong of [
      ...['orford.example', 'http://orford.example', 'https://orford.example/', 'https://orford.example/page', '*'],
      ...[
        'https://a.example; script-src *',
        "https://a.example 'unsafe-inline'",
        'https://',
        'https://a.example:0',
        '',
      ],
      ...['https://a.example:70000', 'https://*.example', 'null', 'data:', "'self'", 'https://a.example\nX-Evil: 1'],
    ]) {
      const refused = await settle('school-visit', [wrong]);
      expect([wrong, refused.status]).toEqual([wrong, 422]);
    }
    expect((await settle('vessel-time', ['https://orford.example'])).status).toBe(422);
    ok(await settle('school-visit', ['http://localhost:5173', 'http://127.0.0.1:8000']));
    ok(await settle('school-visit', undefined));
  });

  it('takes nothing in from a page that is not ours', async () => {
    ok(await settle('school-visit', ['https://orford.example']));
    const path = `${desk.running.url}/api/doors/school-visit/checks`;
    const sent = { method: 'POST', body: JSON.stringify({ answers: {} }) };
    const from = async (origin: string): Promise<number> =>
      (await fetch(path, { ...sent, headers: { 'content-type': 'application/json', origin } })).status;
    expect(await from('https://orford.example')).toBe(403);
    expect(await from(desk.running.url)).toBe(200);
  });
});
