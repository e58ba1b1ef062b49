import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { createServer, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { DEMO_NOW, demoConfig, seed } from '@tolvek/demo';
import { FolderInUse, readConfig, start } from '@tolvek/server';
import { letters, notices, requests } from '@tolvek/server/schema';
import Sqlite from 'better-sqlite3';
import { and, eq, ne } from 'drizzle-orm';
import { SMTPServer } from 'smtp-server';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { IS_LONG } from '../../core/laws/often.ts';
import { layOut } from '../carried/archive.ts';
import { type Caller, Desk, VISIT } from './desk.ts';

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
let desk: Desk;
let priya: Caller;
let maren: Caller;
let stranger: Caller;

beforeAll(async () => {
  desk = await Desk.open();
  [priya, maren, stranger] = [await desk.as('Priya Nakamura-Lind'), await desk.as('Maren Okafor'), await desk.as()];
});
afterAll(() => desk.close());

let visitors = 0;
/** A request that no other is like. */
const ask = (key?: string) => {
  visitors += 1;
  return priya.submit('come-on-site', { ...VISIT, visitor: `Visitor ${visitors}` }, key ? { key } : {});
};
const stored = (): number => desk.running.house.db.select().from(requests).all().length;

/** Another program that holds the database, as a backup or a curious hand would. */
function lock(): { release: () => void } {
  const other = new Sqlite(join(desk.folder, 'tolvek.sqlite'), { timeout: 5_000 });
  other.exec('begin immediate');
  return {
    release: () => {
      if (other.open) other.exec('rollback');
      other.close();
    },
  };
}

describe('a database that another program holds', () => {
  it('is waited for, while everybody else is answered', async () => {
    const held = lock();
    const order: string[] = [];
    const sent = ask().then((answer) => {
      order.push('sent');
      return answer;
    });
    const came = desk.as('Bram Solheim');
    for (let n = 0; n < 3; n += 1) {
      expect((await maren.call('trays')).status).toBe(200);
      order.push('looked');
    }
    expect(order).toEqual(Array.from({ length: 3 }, () => 'looked'));
    held.release();
    expect((await sent).status).toBe(200);
    // Signing in writes a session, and waits as well.
    expect((await (await came).call('trays')).status).toBe(200);
  });

  it('for longer than five seconds is told, with when to come back; then all goes on by itself', async () => {
    const before = stored();
    const held = lock();
    const refused = await ask('the-same-key-again');
    expect([refused.status, refused.body.type]).toEqual([503, 'urn:tolvek:problem:busy']);
    const health = await stranger.call('health');
    expect([health.body.status, health.body.troubles[0].what]).toEqual(['troubled', 'locked']);
    expect((await maren.call('trays')).body.troubles[0].words).toContain('uses the database');
    // The timers, the letters and the taking away turn meanwhile, and end nothing.
    await wait(1_500);
    held.release();
    expect(stored()).toBe(before);
    visitors -= 1;
    expect((await ask('the-same-key-again')).status).toBe(200);
    expect(stored()).toBe(before + 1);
    expect((await stranger.call('health')).body).toMatchObject({ status: 'ok', troubles: [] });
  });
});

describe('a start while another program holds the database', () => {
  it('waits for it, answering that it is not ready yet, and says so in words when it stays held', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
    // As an earlier release left it: its tables have to be brought up to date.
    layOut('0.1.0', folder);
    const other = new Sqlite(join(folder, 'tolvek.sqlite'), { timeout: 5_000 });
    other.exec('begin immediate');
    await expect(Desk.open(0, folder)).rejects.toThrow(/Another program uses/);
    const port = await freePort();
    const waiting = Desk.open(0, folder, { port, url: `http://127.0.0.1:${port}` });
    await wait(1_500);
    const meanwhile = await fetch(`http://127.0.0.1:${port}/api/health`);
    expect([meanwhile.status, meanwhile.headers.get('retry-after')]).toEqual([503, '2']);
    other.exec('rollback');
    other.close();
    const again = await waiting;
    expect((await (await again.as()).call('health')).body.status).toBe('ok');
    expect(readdirSync(folder).filter((name) => name.startsWith('tolvek-version-'))).toEqual([
      'tolvek-version-11.sqlite',
    ]);
    await again.close();
  }, 120_000);
});

async function freePort(): Promise<number> {
  const server = createServer();
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as { port: number };
  server.close();
  await once(server, 'close');
  return port;
}

describe('a full disk', () => {
  it('refuses what can’t be stored, answers what can be read, and takes up again by itself', async () => {
    const { db } = desk.running.house;
    const before = stored();
    const pages = Number(db.$client.pragma('page_count', { simple: true }));
    db.$client.pragma(`max_page_count = ${pages}`);
    let refused = await ask('a-full-disk-0');
    for (let n = 1; n < 200 && refused.status === 200; n += 1) refused = await ask(`a-full-disk-${n}`);
    expect([refused.status, refused.body.type]).toEqual([503, 'urn:tolvek:problem:disk']);
    const full = stored();
    expect((await maren.call('ledger')).status).toBe(200);
    expect((await stranger.call('health')).body.troubles.map((each: { what: string }) => each.what)).toContain('full');
    await wait(1_500);
    db.$client.pragma('max_page_count = 1073741823');
    visitors -= 1;
    const last = [...desk.answers].reverse().find((answer) => answer.route === 'submit');
    expect(last?.status).toBe(503);
    expect((await ask()).status).toBe(200);
    expect(stored()).toBe(full + 1);
    expect(full).toBeGreaterThanOrEqual(before);
    // What the stand-in could not take meanwhile is sent again after its wait.
    await stranger.call('advanceClock', { body: { minutes: 60 } });
    await desk.running.lettersSent();
    await desk.allWell();
    // Every letter of a stored request went, once.
    const ids = db
      .select({ id: letters.messageId })
      .from(letters)
      .all()
      .map((each) => each.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(db.select().from(notices).where(ne(notices.state, 'sent')).all()).toEqual([]);
  });
});

describe('one data folder', () => {
  it('is worked on by one process, and the second is told which', async () => {
    const config = demoConfig({ TOLVEK_DATA: desk.folder, PORT: '0', TOLVEK_LOG: 'silent' });
    const second = start(config, { demoNow: DEMO_NOW, seed: (house) => seed(house, 0) });
    await expect(second).rejects.toThrow(FolderInUse);
    await expect(second).rejects.toThrow(`process ${process.pid}`);
    expect((await maren.call('trays')).status).toBe(200);
  });

  it('is private to the account that runs it, also where an earlier release left it open', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
    await (await Desk.open(0, folder)).running.stop();
    chmodSync(join(folder, 'tolvek.sqlite'), 0o644);
    chmodSync(folder, 0o755);
    const again = await Desk.open(0, folder);
    const paths = readdirSync(folder, { recursive: true, withFileTypes: true });
    expect(paths.length).toBeGreaterThan(3);
    for (const each of paths)
      expect([each.name, statSync(join(each.parentPath, each.name)).mode & 0o077]).toEqual([each.name, 0]);
    expect(statSync(folder).mode & 0o077).toBe(0);
    await again.running.stop();
    rmSync(folder, { recursive: true });
  });

  it('that the demo made is not opened by a production', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
    await (await Desk.open(0, folder)).running.stop();
    const production = readConfig({
      TOLVEK_DATA: folder,
      PORT: '0',
      TOLVEK_SECRET: 'x'.repeat(32),
      TOLVEK_SMTP: 'smtp://127.0.0.1:1',
      TOLVEK_LOG: 'silent',
    });
    await expect(start(production)).rejects.toThrow('which the demo made');
    rmSync(folder, { recursive: true });
  });
});

/** A mail server that does as a test says. */
async function mailServer(
  step: (at: 'connected' | 'sender' | 'recipient' | 'data' | 'received', id: string) => void,
  answer: () => Error | null = () => null,
): Promise<{ url: string; received: string[]; close: () => Promise<void> }> {
  const received: string[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disableReverseLookup: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onConnect: (_session, done) => {
      step('connected', '');
      done();
    },
    onMailFrom: (_address, _session, done) => {
      step('sender', '');
      done();
    },
    onRcptTo: (_address, _session, done) => {
      step('recipient', '');
      done();
    },
    onData: (stream, _session, done) => {
      let text = '';
      step('data', '');
      stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
      stream.on('end', () => {
        const problem = answer();
        if (problem) return done(problem);
        const id = /^Message-ID: <(.+)@tolvek>/im.exec(text)?.[1] ?? '';
        received.push(id);
        // Received, and not yet acknowledged.
        step('received', id);
        done();
      });
    },
  });
  server.on('error', () => undefined);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.server.address() as { port: number };
  return { url: `smtp://127.0.0.1:${port}`, received, close: () => new Promise((done) => server.close(done)) };
}

describe('a mail server', () => {
  it('that is away for an hour loses and doubles no letter', async () => {
    let away = true;
    const mail = await mailServer(
      () => undefined,
      () => (away ? new Error('away') : null),
    );
    const house = await Desk.open(0, undefined, {}, mail.url);
    const { db } = house.running.house;
    const [asking, moving] = [await house.as('Priya Nakamura-Lind'), await house.as()];
    for (let n = 0; n < 20; n += 1) await asking.submit('come-on-site', { ...VISIT, visitor: `Away ${n}` });
    for (let minutes = 0; minutes < 60; minutes += 5) {
      await house.running.lettersSent();
      await moving.call('advanceClock', { body: { minutes: 5 } });
    }
    await house.running.lettersSent();
    expect(mail.received).toEqual([]);
    const waiting = db.select().from(notices).all();
    expect(waiting.length).toBeGreaterThan(60);
    expect(waiting.every((letter) => letter.state === 'waiting' && letter.attempts >= 4)).toBe(true);
    expect((await moving.call('health')).body.letters).toEqual({ waiting: waiting.length, failed: 0 });
    away = false;
    await moving.call('advanceClock', { body: { minutes: 121 } });
    await house.running.lettersSent();
    expect([...mail.received].sort()).toEqual(waiting.map((letter) => letter.id).sort());
    await house.close();
    await mail.close();
  });

  it('that says nothing holds nobody up, and the application ends all the same', async () => {
    const open: Socket[] = [];
    const mute = createServer((socket) => void open.push(socket));
    mute.listen(0, '127.0.0.1');
    await once(mute, 'listening');
    const { port } = mute.address() as { port: number };
    const folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
    const house = await Desk.open(0, folder, {}, `smtp://127.0.0.1:${port}`);
    await (await house.as('Priya Nakamura-Lind')).submit('come-on-site', VISIT);
    await wait(200);
    expect((await (await house.as()).call('health')).body.letters.waiting).toBeGreaterThan(2);
    const from = performance.now();
    await house.running.stop();
    expect(performance.now() - from).toBeLessThan(10_000);
    for (const socket of open) socket.destroy();
    mute.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('gets no letter of a clock that jumped ahead later than one of a clock that did not', async () => {
    let away = true;
    const mail = await mailServer(
      () => undefined,
      () => (away ? new Error('away') : null),
    );
    const house = await Desk.open(0, undefined, {}, mail.url);
    const { clock } = house.running.house;
    if (!('advance' in clock)) throw new Error('the demo has a clock of its own');
    const jump = (ms: number): void => (clock as { advance: (by: number) => void }).advance(ms);
    const asking = await house.as('Priya Nakamura-Lind');
    // Ten years ahead while letters are tried, then back.
    const years = 10 * 365 * 24 * 3_600_000;
    jump(years);
    await asking.submit('come-on-site', { ...VISIT, arrival: '2037-01-01', departure: '2037-01-02' });
    await house.running.lettersSent();
    jump(-years);
    away = false;
    await (await house.as()).call('advanceClock', { body: { minutes: 1 } });
    await house.running.lettersSent();
    expect(mail.received.length).toBeGreaterThan(0);
    expect((await (await house.as()).call('health')).body).toMatchObject({ status: 'ok', letters: { waiting: 0 } });
    await house.close();
    await mail.close();
  });
});

describe('a kill while letters go', () => {
  // `npm run laws` is killed at each step of the conversation.
  const STEPS = ['connected', 'data', 'received', ...(IS_LONG ? (['sender', 'recipient'] as const) : [])] as const;
  const LETTERS = 40;

  it.each(STEPS)('at “%s” loses none, and doubles no more than there were lines open', async (killAt) => {
    const folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
    const made = await Desk.open(0, folder);
    const { db } = made.running.house;
    await made.running.lettersSent();
    const letter = { toName: 'Ada', toAddress: 'ada@institute.example', said: { text: 'Words', html: '<p>Words</p>' } };
    for (let n = 0; n < LETTERS; n += 1)
      db.insert(notices)
        .values({
          id: `kill-${n}`,
          requestId: null,
          kind: 'received',
          subject: `Letter ${n}`,
          ...letter,
          state: 'failed',
          nextAttemptAt: 0,
          createdAt: 0,
        })
        .run();
    await made.running.stop();
    const ready = new Sqlite(join(folder, 'tolvek.sqlite'));
    ready.exec("update notices set state = 'waiting' where state = 'failed'");
    ready.close();

    let seen = 0;
    let kill = (): void => undefined;
    const mail = await mailServer((at) => {
      if (at !== killAt) return;
      seen += 1;
      // In the middle of the work, not at its first letter.
      if (seen === (killAt === 'connected' ? 3 : 17)) kill();
    });
    const send = () =>
      spawn(process.execPath, ['server/built/sending.mjs', folder, mail.url], {
        cwd: resolve(import.meta.dirname, '../..'),
        stdio: 'ignore',
      });
    const first = send();
    kill = () => first.kill('SIGKILL');
    const [code, signal] = await once(first, 'exit');
    expect([code, signal]).toEqual([null, 'SIGKILL']);
    kill = () => undefined;
    const second = send();
    expect((await once(second, 'exit'))[0]).toBe(0);
    const ids = mail.received.filter((id) => id.startsWith('kill-'));
    expect(new Set(ids).size).toBe(LETTERS);
    expect(ids.length - LETTERS).toBeLessThanOrEqual(5);
    await mail.close();
    rmSync(folder, { recursive: true });
  });
});

describe('letters that were given up', () => {
  it('are counted in health and on the Floor, and sent again by a press', async () => {
    const { db } = desk.running.house;
    await ask();
    await desk.running.lettersSent();
    const [some] = db.select().from(notices).where(eq(notices.state, 'sent')).limit(1).all();
    if (!some) throw new Error('a letter was sent');
    db.update(notices).set({ state: 'failed', attempts: 7 }).where(eq(notices.id, some.id)).run();
    db.delete(letters)
      .where(eq(letters.messageId, `<${some.id}@tolvek>`))
      .run();
    expect((await stranger.call('health')).body.letters.failed).toBe(1);
    expect((await maren.call('trays')).body.failedLetters).toBe(1);
    expect((await priya.call('trays')).body.failedLetters).toBe(0);
    expect((await priya.call('sendFailedAgain')).status).toBe(403);
    expect((await maren.call('sendFailedAgain')).body).toEqual({ letters: 1 });
    await desk.running.lettersSent();
    expect((await stranger.call('health')).body.letters).toEqual({ waiting: 0, failed: 0 });
    const again = and(eq(letters.messageId, `<${some.id}@tolvek>`));
    expect(db.select().from(letters).where(again).all()).toHaveLength(1);
  });
});
