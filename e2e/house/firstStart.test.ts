import { execFile } from 'node:child_process';
import { resolve } from 'node:path';
import { promisify } from 'node:util';
import { type Route, routes } from '@tolvek/contract';
import { links, people, user } from '@tolvek/server/schema';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Desk, ok } from './desk.ts';

const PASSWORD = 'gulls over grey water';
const LAID = {
  desk: {
    ...{ organisation: 'Tarn Hill Gardens', name: 'Garden desk', zone: 'Europe/Dublin', language: 'en' },
    sender: 'desk@tarnhill.example',
  },
  administrator: { name: 'Odile Marsh', email: 'Odile.Marsh@tarnhill.example', password: PASSWORD },
} as const;

const tokenIn = (text: string | null): string => /\/(?:start|welcome)\/([\w-]+)/.exec(text ?? '')?.[1] ?? '';
const statusOf = async (calling: Promise<{ status: number }>): Promise<number> => (await calling).status;

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.empty();
});
afterAll(() => desk.close());

describe('before a desk is laid', () => {
  it('nothing is answered but its first start, on any route', async () => {
    const answered: string[] = [];
    for (const { name, path, method } of Object.values(routes) as Route[]) {
      const sent = {
        method,
        ...(method === 'GET' ? {} : { headers: { 'content-type': 'application/json' }, body: '{}' }),
      };
      const { status } = await fetch(`${desk.running.url}${path.replace(/:\w+/g, 'nothing')}`, sent);
      if (status !== 503) answered.push(`${name} ${status}`);
    }
    expect(answered.sort()).toEqual(['firstStart 404', 'health 200', 'layGround 400']);
  });

  it('there is no account, and no password that opens anything', async () => {
    const { db } = desk.running.house;
    expect([db.select().from(people).all(), db.select().from(user).all()]).toEqual([[], []]);
    expect(await desk.by('admin@tarnhill.example', 'admin')).toBeNull();
  });

  it('a link that was guessed opens nothing, and what is kept of the right one would not make it', async () => {
    const stranger = await desk.as();
    const token = tokenIn(desk.running.firstStart);
    expect(token).toMatch(/^[\w-]{32}$/);
    const kept = JSON.stringify(desk.running.house.db.select().from(links).all());
    expect(kept).not.toContain(token);
    const near = `${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`;
    for (const guess of [
      '',
      'nothing',
      near,
      token.toLowerCase(),
      `${token}A`,
      desk.running.house.db.select().from(links).get()?.tokenHash ?? '',
    ])
      expect(await statusOf(stranger.call('layGround', { params: { token: guess }, body: LAID }))).toBe(404);
  });

  it('all that is missing or wrong is told at once, in its place, and the link still works', async () => {
    const stranger = await desk.as();
    const token = tokenIn(desk.running.firstStart);
    const wrong = {
      desk: { organisation: '', name: ' ', zone: 'Mars/Olympus', language: 'de', sender: 'desk' },
      administrator: { name: '', email: 'odile', password: 'odile' },
    };
    const { status, body } = await stranger.call('layGround', { params: { token }, body: wrong });
    expect([status, body.problems.map(({ field }: { field: string }) => field)]).toEqual([
      422,
      [
        'desk.name',
        'desk.zone',
        'desk.sender.address',
        'administrator.name',
        'administrator.email',
        'administrator.password',
      ],
    ]);
    expect((await stranger.call('firstStart', { params: { token } })).body.desk).toEqual({
      ...{ name: 'Field Operations Desk', organisation: 'Skerrow Point Marine Station' },
      sender: 'desk@skerrow.example',
    });
  });
});

describe('the first start', () => {
  it('lays the desk and lets its administrator in, once', async () => {
    const stranger = await desk.as();
    const token = tokenIn(desk.running.firstStart);
    // Sent twice at once, it is done once.
    const both = await Promise.all([1, 2].map(() => stranger.call('layGround', { params: { token }, body: LAID })));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 410]);
    expect(await statusOf(stranger.call('firstStart', { params: { token } }))).toBe(410);
    const odile = await desk.by('odile.marsh@tarnhill.example', PASSWORD);
    const me = (await odile?.call('me'))?.body;
    expect([
      me.person.rights.includes('rights'),
      me.desk.name,
      me.desk.organisation,
      me.desk.zone,
      me.desk.email,
    ]).toEqual([true, ...['Garden desk', 'Tarn Hill Gardens', 'Europe/Dublin', 'desk@tarnhill.example']]);
    const laid = (await odile?.call('groundwork'))?.body;
    expect([laid.counts, laid.email, laid.calendar]).toEqual([
      {
        people: 1,
        contacts: 0,
        groups: 0,
        teams: 0,
        calendars: 0,
        registers: 0,
        vocabularies: 0,
        forms: 0,
        released: 0,
      },
      null,
      null,
    ]);
  });

  it('ends after an hour, and each start makes a new link in place of the one before', async () => {
    const late = await Desk.empty();
    const first = tokenIn(late.running.firstStart);
    const stranger = await late.as();
    const { clock } = late.running.house as { clock: { advance?: (ms: number) => void } };
    clock.advance?.(59 * 60_000);
    expect(await statusOf(stranger.call('firstStart', { params: { token: first } }))).toBe(200);
    clock.advance?.(2 * 60_000);
    expect(await statusOf(stranger.call('firstStart', { params: { token: first } }))).toBe(410);
    expect(await statusOf(stranger.call('layGround', { params: { token: first }, body: LAID }))).toBe(410);
    await late.close();
  });
});

describe('administrators from the command line', () => {
  const run = async (folder: string, ...args: string[]): Promise<{ out: string; err: string }> => {
    const env = {
      ...{ PATH: process.env.PATH, LANG: 'en_GB.UTF-8', TOLVEK_DATA: folder, TOLVEK_LOG: 'silent' },
      ...{
        TOLVEK_SECRET: 'x'.repeat(40),
        TOLVEK_SMTP: 'smtp://127.0.0.1:1',
        TOLVEK_URL: 'https://desk.tarnhill.example',
      },
    };
    const admin = resolve(import.meta.dirname, '../../server/built/admin.mjs');
    return promisify(execFile)(process.execPath, [admin, ...args], { env }).then(
      ({ stdout, stderr }) => ({ out: stdout, err: stderr }),
      ({ stdout, stderr }) => ({ out: stdout, err: stderr }),
    );
  };

  it('get a first start on an empty folder, and a link to a password later, also while it runs', async () => {
    // The folder of a demo opens to nobody this way: all of its people have one password.
    expect((await run(desk.folder, 'list')).err).toContain('which the demo made');
    const real = await Desk.empty({ mode: 'production' });
    const { folder } = real;
    expect((await run(folder, 'list')).out).toContain('Nobody has set up this desk yet');
    const first = await run(folder, 'invite', 'odile.marsh@tarnhill.example');
    const stranger = await real.as();
    // It takes the place of the link that the start showed.
    const old = { params: { token: tokenIn(real.running.firstStart) } };
    expect((await stranger.call('firstStart', old)).status).toBe(410);
    const fresh = { params: { token: tokenIn(first.out) } };
    expect((await stranger.call('firstStart', fresh)).body.email).toBe('odile.marsh@tarnhill.example');
    expect((await stranger.call('layGround', { ...fresh, body: LAID })).status).toBe(200);
    expect((await real.by('odile.marsh@tarnhill.example', PASSWORD)) !== null).toBe(true);
    expect((await run(folder, 'list')).out).toMatch(/^Odile Marsh <odile\.marsh@tarnhill\.example>: was here on .+\n$/);
    const invited = await run(folder, 'invite', 'Second.Hand@tarnhill.example');
    expect(invited.out).toContain('second.hand (second.hand@tarnhill.example) is an administrator');
    expect((await run(folder, 'list')).out).toContain('second.hand@tarnhill.example>: has no password yet');
    expect((await run(folder, 'reset', 'nobody@tarnhill.example')).err).toContain('Nobody among the active staff');
    expect((await run(folder, 'invite', 'no address')).err).toContain('is not an email address');
    expect((await run(folder)).err).toContain('npm run admin -- invite');
    const reset = await run(folder, 'reset', 'odile.marsh@tarnhill.example');
    expect(tokenIn(reset.out)).toMatch(/^[\w-]{32}$/);
    expect(reset.out).toContain('https://desk.tarnhill.example/welcome/');
    const again = { params: { token: tokenIn(reset.out) } };
    expect((await stranger.call('invitation', again)).body.purpose).toBe('reset');
    const other = { ...again, body: { password: 'grey water under gulls' } };
    expect((await stranger.call('acceptInvitation', other)).status).toBe(200);
    expect((await real.by('odile.marsh@tarnhill.example', PASSWORD)) !== null).toBe(false);
    expect((await real.by('odile.marsh@tarnhill.example', 'grey water under gulls')) !== null).toBe(true);
    await real.close();
  }, 180_000);
});

describe('an installation of before', () => {
  it('is laid once from what its environment said, whatever that was, and then as it is set', async () => {
    const before = await Desk.open();
    const { folder } = before;
    before.running.house.db.$client.exec(
      "delete from design_states where design_id in (select id from designs where kind = 'desk'); delete from designs where kind = 'desk'",
    );
    await before.running.stop();
    const said = { name: 'Old desk', organisation: 'Tarn Hill', sender: 'no address', senderName: 'Tarn Hill post' };
    const after = await Desk.open(0, folder, { desk: said });
    expect(after.running.firstStart).toBeNull();
    const ada = await after.as('Ada Quillfeather');
    const { desk: laid, version } = (await ada.call('deskSettings')).body;
    expect([laid.name, laid.organisation, laid.zone, laid.calendar, laid.sender]).toEqual([
      ...['Old desk', 'Tarn Hill', 'Europe/Dublin', 'boats'],
      { name: 'Tarn Hill post', address: 'desk@127.0.0.1' },
    ]);
    const headers = { 'If-Match': `"${version}"` };
    const body = { desk: { ...laid, name: 'New desk' }, note: '' };
    expect((await ada.call('changeDesk', { headers, body })).status).toBe(200);
    await after.running.stop();
    const again = await Desk.open(0, folder, { desk: said });
    expect((await (await again.as()).call('me')).body.desk.name).toBe('New desk');
    await again.close();
  });
});

it('a desk that an earlier release laid is read whole, and changed, with its earlier states', async () => {
  const desk = await Desk.open();
  const { $client } = desk.running.house.db;
  for (const [table, column] of [
    ['designs', 'draft'],
    ['design_states', 'content'],
  ] as const)
    $client.exec(
      `update ${table} set ${column} = json_remove(${column}, '$.keeps', '$.links.invite') where json_extract(${column}, '$.keeps') is not null`,
    );
  const ada = await desk.as('Ada Quillfeather');
  const seen = ok(await ada.call('deskSettings'));
  expect([seen.desk.keeps, seen.desk.links.invite]).toEqual([{ emails: 30, unconfirmed: 3 }, 7]);
  const changed = { ...seen.desk, keeps: { ...seen.desk.keeps, emails: 60 } };
  const headers = { 'If-Match': `"${seen.version}"` };
  ok(await ada.call('changeDesk', { headers, body: { desk: changed, note: '' } }));
  const { states } = ok(await ada.call('deskSettings'));
  expect(states[0].changes.length).toBe(1);
  ok(
    await ada.call('changeDesk', {
      ...{ headers: { 'If-Match': `"${seen.version + 1}"` }, body: { desk: states[1].desk, note: '' } },
    }),
  );
  await desk.close();
});
